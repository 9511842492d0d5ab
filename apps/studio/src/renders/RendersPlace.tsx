import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { forgetRender, pauseRender, resumeRender, useRenderJobs } from '../render/queue/jobs';
import { askToNotify, canNotify } from '../render/queue/notices';
import type { RenderJob } from '../render/queue/queue';
import { Place } from '../shell/Place';
import { usePreferences, useSetPreferences } from '../storage/queries';
import { Button } from '../ui/Button';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { bytesText } from '../ui/units';
import { JobRow } from './JobRow';

/** Every render: what is under way, in its order, and what has ended. */
export function RendersPlace() {
  const jobs = useRenderJobs();
  const router = useRouter();
  const ended = jobs.filter((j) => j.state === 'done' || j.state === 'cancelled');
  const unfinished = jobs.filter((j) => !ended.includes(j));
  return (
    <Place title="Renders" testID="renders">
      {jobs.length === 0 ? (
        <View style={styles.empty}>
          <Txt tone="quiet">
            Nothing is rendering. Open a reel and go to its Render step. Finished files stay here until you
            remove them.
          </Txt>
          <Button title="See the reels" onPress={() => router.navigate('/reels')} />
        </View>
      ) : (
        <View style={styles.parts}>
          {unfinished.length > 0 && <UnderWay jobs={unfinished} />}
          {ended.length > 0 && <Ended jobs={ended} />}
        </View>
      )}
    </Place>
  );
}

function UnderWay({ jobs }: { jobs: readonly RenderJob[] }) {
  const inLine = jobs.filter((j) => j.state !== 'running');
  const going = jobs.filter((j) => j.state === 'running' || j.state === 'waiting');
  const paused = jobs.filter((j) => j.state === 'paused');
  return (
    <View style={styles.list} testID="renders-under-way">
      <View style={styles.head}>
        <Txt kind="lead" level={2} style={styles.grow}>
          Under way
        </Txt>
        {going.length > 1 && (
          <Button
            title="Pause all"
            small
            onPress={() => {
              // From the last, so that none of them begins meanwhile.
              for (const job of going.reverse()) void pauseRender(job.id);
            }}
            testID="pause-all"
          />
        )}
        {paused.length > 1 && (
          <Button
            title="Go on with all"
            small
            onPress={() => {
              for (const job of paused) void resumeRender(job.id);
            }}
            testID="resume-all"
          />
        )}
      </View>
      <Txt kind="small" tone="quiet">
        You can work on, close the tab or the browser: a render goes on from the last second it has written.
      </Txt>
      <Notices />
      {jobs.map((job) => (
        <JobRow
          key={job.id}
          job={job}
          line={job.state === 'running' ? undefined : { place: inLine.indexOf(job), count: inLine.length }}
        />
      ))}
    </View>
  );
}

/** Whether the end of a render is told to a user who looks at something else. */
function Notices() {
  const preferences = usePreferences();
  const set = useSetPreferences();
  const [refused, setRefused] = useState(false);
  if (!canNotify()) return null;
  const on = preferences.notices && Notification.permission === 'granted';
  const change = async (wanted: boolean) => {
    const allowed = !wanted || (await askToNotify());
    setRefused(!allowed);
    if (allowed) set({ notices: wanted });
  };
  return (
    <View>
      <Toggle
        label="Tell me when one is done"
        value={on}
        onChange={(wanted) => void change(wanted)}
        testID="notices"
      />
      {refused && (
        <Txt kind="small" tone="amber">
          The browser does not allow it. Allow notifications for this page in its settings, then switch it on
          again.
        </Txt>
      )}
    </View>
  );
}

function Ended({ jobs }: { jobs: readonly RenderJob[] }) {
  const bytes = jobs.reduce((sum, j) => sum + (j.file?.size ?? 0), 0);
  return (
    <View style={styles.list}>
      <View style={styles.head}>
        <Txt kind="lead" level={2} style={styles.grow}>
          Ended
        </Txt>
        {jobs.length > 1 && (
          <Button
            title="Remove all"
            small
            kind="danger"
            onPress={() => {
              for (const job of jobs) void forgetRender(job.id);
            }}
            testID="remove-all"
          />
        )}
      </View>
      {bytes > 0 && (
        <Txt kind="small" tone="quiet" testID="renders-room">
          {`Finished files stay until you remove them. They take ${bytesText(bytes)} in this browser.`}
        </Txt>
      )}
      {jobs.map((job) => (
        <JobRow key={job.id} job={job} />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  empty: { gap: 16, alignItems: 'flex-start' },
  parts: { gap: 28, maxWidth: 640 },
  list: { gap: 12 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 },
  grow: { flexGrow: 1 },
});
