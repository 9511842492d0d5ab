import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Press } from './Press';
import { Txt } from './Txt';
import { CORNER, colour, TOUCH } from './theme';

interface ToastMessage {
  readonly text: string;
  readonly action?: { readonly title: string; readonly run: () => void };
}

const ToastContext = createContext<(message: ToastMessage) => void>(() => undefined);

/** Says something for a few seconds, with one way to take it back. */
export function useToast(): (message: ToastMessage) => void {
  return useContext(ToastContext);
}

const SECONDS = 8;

export function ToastProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<(ToastMessage & { key: number }) | undefined>();
  const show = useCallback((message: ToastMessage) => setShown({ ...message, key: Date.now() }), []);
  useEffect(() => {
    if (!shown) return;
    const timer = setTimeout(() => setShown(undefined), SECONDS * 1000);
    return () => clearTimeout(timer);
  }, [shown]);
  const value = useMemo(() => show, [show]);
  return (
    <ToastContext.Provider value={value}>
      {children}
      {shown && (
        <View style={styles.place} pointerEvents="box-none">
          <View role="status" style={styles.toast} testID="toast">
            <Txt tone="white" style={styles.text}>
              {shown.text}
            </Txt>
            {shown.action && (
              <Press
                role="button"
                aria-label={shown.action.title}
                style={styles.action}
                testID="toast-action"
                onPress={() => {
                  shown.action?.run();
                  setShown(undefined);
                }}
              >
                <Txt kind="strong" tone="white" style={styles.underline}>
                  {shown.action.title}
                </Txt>
              </Press>
            )}
          </View>
        </View>
      )}
    </ToastContext.Provider>
  );
}

const styles = StyleSheet.create({
  place: {
    position: 'absolute',
    left: 0,
    right: 0,
    bottom: 76,
    alignItems: 'center',
    zIndex: 50,
    paddingHorizontal: 12,
  },
  toast: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 14,
    backgroundColor: colour.ink,
    borderRadius: CORNER,
    paddingLeft: 16,
    paddingRight: 8,
    minHeight: 48,
    maxWidth: 520,
  },
  text: { flexShrink: 1, paddingVertical: 10 },
  action: { minHeight: TOUCH, justifyContent: 'center', paddingHorizontal: 10, borderRadius: 8 },
  underline: { textDecorationLine: 'underline' },
});
