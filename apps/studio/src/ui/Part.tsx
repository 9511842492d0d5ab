import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Txt } from './Txt';

/** A part of a screen under a heading of its own. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View style={styles.part}>
      <Txt kind="lead" level={2}>
        {title}
      </Txt>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({ part: { gap: 10 } });
