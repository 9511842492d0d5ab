import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useRenderJobs } from '../render/jobs';
import { Place } from '../shell/Place';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { JobRow } from './JobRow';

/** Every render of this visit. */
export function RendersPlace() {
  const jobs = useRenderJobs();
  const router = useRouter();
  return (
    <Place title="Renders" testID="renders">
      {jobs.length === 0 ? (
        <View style={styles.empty}>
          <Txt tone="quiet">
            Nothing is rendering. Open a reel and go to its Render step. Finished files stay here until you
            close the tab.
          </Txt>
          <Button title="See the reels" onPress={() => router.navigate('/reels')} />
        </View>
      ) : (
        <View style={styles.list}>
          {jobs.map((job) => (
            <JobRow key={job.id} job={job} />
          ))}
        </View>
      )}
    </Place>
  );
}

const styles = StyleSheet.create({
  empty: { gap: 16, alignItems: 'flex-start' },
  list: { gap: 12, maxWidth: 640 },
});
