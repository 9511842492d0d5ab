import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { announce } from './announce';
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
/** Notices seen at once; an older one goes when more come. */
const MOST = 3;

type Shown = ToastMessage & { readonly key: number };
let made = 0;

export function ToastProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<readonly Shown[]>([]);
  const drop = useCallback((key: number) => setShown((all) => all.filter((t) => t.key !== key)), []);
  const show = useCallback((message: ToastMessage) => {
    // One that comes later takes nothing away from one that is still being read.
    setShown((all) => [...all, { ...message, key: ++made }].slice(-MOST));
    announce(message.text);
  }, []);
  return (
    <ToastContext.Provider value={show}>
      {children}
      {shown.length > 0 && (
        <View style={styles.place} pointerEvents="box-none">
          {shown.map((toast) => (
            <Notice key={toast.key} toast={toast} onGone={drop} />
          ))}
        </View>
      )}
    </ToastContext.Provider>
  );
}

function Notice({ toast, onGone }: { toast: Shown; onGone: (key: number) => void }) {
  const { key, text, action } = toast;
  useEffect(() => {
    const timer = setTimeout(() => onGone(key), SECONDS * 1000);
    return () => clearTimeout(timer);
  }, [key, onGone]);
  return (
    <View style={styles.toast} testID="toast">
      <Txt tone="white" style={styles.text}>
        {text}
      </Txt>
      {action && (
        <Press
          role="button"
          aria-label={action.title}
          style={styles.action}
          testID="toast-action"
          onPress={() => {
            action.run();
            onGone(key);
          }}
        >
          <Txt kind="strong" tone="white" style={styles.underline}>
            {action.title}
          </Txt>
        </Press>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  place: {
    position: 'absolute',
    left: 0,
    right: 0,
    bottom: 76,
    alignItems: 'center',
    gap: 8,
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
