import { useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { IconButton } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';

/** The head of a page below Templates: the way back, what it is, and what is done with it. */
export function TemplatesHeader({ title, children }: { title: string; children?: ReactNode }) {
  const router = useRouter();
  return (
    <View style={styles.header} role="banner">
      <IconButton
        icon="arrow-left"
        label="Back to templates"
        onPress={() => router.replace('/templates')}
        testID="back"
      />
      <Txt kind="lead" level={1} style={styles.title}>
        {title}
      </Txt>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  header: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 56,
    paddingHorizontal: 4,
    paddingRight: 12,
    borderBottomWidth: 1,
    borderColor: colour.hairline,
  },
  title: { flex: 1 },
});
