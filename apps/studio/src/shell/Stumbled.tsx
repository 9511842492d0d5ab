import type { ErrorBoundaryProps } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { colour } from '../ui/theme';

/** What shows where a screen could not be drawn: why, and two ways on. Nothing that is stored is touched. */
export function Stumbled({ error, retry }: ErrorBoundaryProps) {
  return (
    <View style={styles.screen} role="main" testID="stumbled">
      <Banner kind="fault">{`This screen could not be drawn. ${error.message} What you have saved is safe.`}</Banner>
      <View style={styles.ways}>
        <Button title="Try again" onPress={() => void retry()} testID="stumbled-again" />
        <Button
          title="To my reels"
          onPress={() => window.location.assign('/reels')}
          testID="stumbled-reels"
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, padding: 24, gap: 16, backgroundColor: colour.paper },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
