import { createFocusTrap } from 'focus-trap';
import { type ReactNode, useCallback, useEffect, useRef } from 'react';
import { createPortal } from 'react-dom';
import { ScrollView, StyleSheet, View } from 'react-native';
import { IconButton } from './Button';
import { Txt } from './Txt';
import { colour, useIsWide } from './theme';
import { ScrollerProvider } from './VirtualGrid';
import { elementOf, webStyle } from './web';

interface Props {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly testID?: string;
  /** For working along with what is above it: the keys may go back and forth. */
  readonly beside?: boolean;
}

/** Sheets that are open, the topmost last: Escape closes that one. */
const stack: object[] = [];

/**
 * A sheet that rises from below and leaves what is above in view. It takes the keys and keeps them, and gives them back
 * where they were; Escape closes it (ARIA Authoring Practices, dialog).
 */
export function Sheet({ title, onClose, children, testID, beside = false }: Props) {
  const wide = useIsWide();
  const sheet = useRef<View>(null);
  const scroller = useRef<ScrollView>(null);
  const node = useCallback(() => (scroller.current?.getScrollableNode() as HTMLElement | null) ?? null, []);
  const close = useRef(onClose);
  close.current = onClose;
  useEffect(() => {
    const me = {};
    stack.push(me);
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== 'Escape' || stack.at(-1) !== me) return;
      // What is being typed is taken as it is when one touches elsewhere.
      const typing = document.activeElement as HTMLElement | null;
      if (typing && elementOf(sheet)?.contains(typing)) typing.blur();
      close.current();
    };
    // Fields keep their keys to themselves; the capture phase comes before them.
    window.addEventListener('keydown', onKey, true);
    return () => {
      window.removeEventListener('keydown', onKey, true);
      stack.splice(stack.indexOf(me), 1);
    };
  }, []);
  useEffect(() => {
    const element = elementOf(sheet);
    if (!element) return;
    if (beside) {
      const before = document.activeElement as HTMLElement | null;
      element.focus({ preventScroll: true });
      return () => {
        if (before?.isConnected) before.focus({ preventScroll: true });
      };
    }
    const trap = createFocusTrap(element, {
      initialFocus: element,
      fallbackFocus: element,
      escapeDeactivates: false,
      allowOutsideClick: true,
      preventScroll: true,
      // Without layout (in a test, or before the first paint) there is nothing to come to but the sheet itself.
      tabbableOptions: { displayCheck: 'none' },
    });
    trap.activate();
    return () => void trap.deactivate();
  }, [beside]);
  // Laid over the whole window, wherever in a scrolling list it was opened.
  return createPortal(
    <View
      ref={sheet}
      role="dialog"
      aria-label={title}
      {...(beside ? {} : { 'aria-modal': true })}
      tabIndex={-1}
      testID={testID}
      style={[styles.sheet, wide && styles.wide]}
    >
      <View style={styles.head}>
        <Txt kind="lead" level={2}>
          {title}
        </Txt>
        <IconButton icon="x" label="Close" onPress={onClose} />
      </View>
      <ScrollView ref={scroller} contentContainerStyle={styles.body}>
        <ScrollerProvider value={node}>{children}</ScrollerProvider>
      </ScrollView>
    </View>,
    document.body,
  );
}

const styles = StyleSheet.create({
  sheet: webStyle({
    position: 'fixed',
    outlineStyle: 'none',
    left: 0,
    right: 0,
    bottom: 0,
    maxHeight: '62%',
    backgroundColor: colour.card,
    borderTopLeftRadius: 16,
    borderTopRightRadius: 16,
    borderTopWidth: 1,
    borderColor: colour.hairline,
    boxShadow: '0 -8px 32px rgba(22,32,43,0.14)',
    zIndex: 20,
  }),
  wide: { left: 'auto', right: 24, bottom: 24, width: 440, borderRadius: 16, borderWidth: 1 },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    paddingLeft: 16,
    paddingRight: 6,
    paddingTop: 6,
  },
  body: { paddingHorizontal: 16, paddingBottom: 20, gap: 14 },
});
