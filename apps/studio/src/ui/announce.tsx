import { useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { Txt } from './Txt';

let said = '';
const listeners = new Set<() => void>();

/** Tells something to those who hear the app, not see it: the end of something long, what was found. */
export function announce(text: string): void {
  // The same words again are told again.
  said = said === text ? `${text}\u00A0` : text;
  for (const listener of listeners) listener();
}

/** The place where announcements are made. It is there before any of them, as screen readers need it. */
export function Announcer() {
  const text = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => said,
  );
  return (
    <View role="status" aria-live="polite" style={styles.unseen} testID="announcer">
      <Txt>{text}</Txt>
    </View>
  );
}

const styles = StyleSheet.create({
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
