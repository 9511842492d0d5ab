import { rateLabel, secondsAt } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { saveFile } from '../disk/pickFile';
import { cancelRender, forgetRender, moveRender, pauseRender, resumeRender } from '../render/queue/jobs';
import type { RenderJob } from '../render/queue/queue';
import { SOUND_NAMES } from '../render/workers/soundCodec';
import { Button, IconButton } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { bytesText, levelText, secondsText, waitText } from '../ui/units';

/** One render: how far it is and how long it will take, or its file. */
export function JobRow({ job, line }: { job: RenderJob; line?: Line | undefined }) {
  return (
    <View style={styles.job} testID={`job-${job.state}`}>
      <Txt kind="strong" numberOfLines={2}>
        {job.plan.fileName}
      </Txt>
      {job.state === 'done' ? <Finished job={job} /> : <Unfinished job={job} line={line} />}
    </View>
  );
}

/** Where a render stands among those that wait: its number from the first, and how many there are. */
interface Line {
  readonly place: number;
  readonly count: number;
}

function Unfinished({ job, line }: { job: RenderJob; line: Line | undefined }) {
  const { id, plan, frames, state } = job;
  const words = {
    running: `Frame ${frames} of ${plan.count}`,
    waiting: frames > 0 ? `Waits, and goes on from frame ${frames} of ${plan.count}.` : 'Waits for its turn.',
    paused: `Paused at frame ${frames} of ${plan.count}.`,
    fault: `Stopped at frame ${frames} of ${plan.count}: ${job.message ?? 'no reason was given.'}`,
    cancelled: 'Cancelled. Nothing was kept.',
    done: '',
  }[state];
  const stands = state === 'running' || state === 'paused';
  return (
    <>
      {stands && <Bar job={job} />}
      <Txt kind="small" tone={state === 'fault' ? 'red' : 'quiet'} style={styles.figures}>
        {words}
        {state === 'running' && <TimeLeft job={job} />}
      </Txt>
      <View style={styles.line}>
        {state === 'running' || state === 'waiting' ? (
          <Button
            title="Pause"
            icon="pause"
            small
            onPress={() => void pauseRender(id)}
            testID="render-pause"
          />
        ) : state === 'paused' ? (
          <Button
            title="Go on"
            icon="play"
            small
            onPress={() => void resumeRender(id)}
            testID="render-resume"
          />
        ) : (
          state === 'fault' && (
            <Button title="Try again" small onPress={() => void resumeRender(id)} testID="render-again" />
          )
        )}
        {state === 'cancelled' ? (
          <IconButton
            icon="x"
            label={`Take ${plan.fileName} off the list`}
            onPress={() => void forgetRender(id)}
          />
        ) : (
          <Button
            title="Cancel"
            kind="plain"
            small
            onPress={() => void cancelRender(id)}
            testID="render-cancel"
          />
        )}
        {line && line.count > 1 && (
          <View style={styles.order}>
            <IconButton
              icon="arrow-up"
              label={`Render ${plan.fileName} earlier`}
              disabled={line.place === 0}
              onPress={() => void moveRender(id, -1)}
              testID="render-earlier"
            />
            <IconButton
              icon="arrow-down"
              label={`Render ${plan.fileName} later`}
              disabled={line.place === line.count - 1}
              onPress={() => void moveRender(id, 1)}
              testID="render-later"
            />
          </View>
        )}
      </View>
    </>
  );
}

function Bar({ job: { plan, frames, state } }: { job: RenderJob }) {
  const part = frames / plan.count;
  return (
    <View
      role="progressbar"
      aria-label={`Rendering ${plan.fileName}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(part * 100)}
      testID="render-progress"
      style={styles.bar}
    >
      <View style={[styles.done, state === 'paused' && styles.still, { width: `${part * 100}%` }]} />
    </View>
  );
}

function doneText({ plan, frames }: RenderJob): string {
  if (plan.format === 'wav') return secondsText(secondsAt(plan.count, plan.rate));
  return plan.count === 1 ? '1 frame' : `all ${frames} frames`;
}

function Finished({ job }: { job: RenderJob }) {
  const { file, plan } = job;
  if (!file) return null;
  return (
    <>
      <Txt kind="small" tone="leaf" testID="render-done">
        Done: {doneText(job)}, {bytesText(file.size)}
        {plan.format === 'png' || plan.format === 'wav' ? '' : `, ${rateLabel(plan.rate)} frames a second`}
        {job.seconds === undefined ? '' : `, in ${secondsText(job.seconds)}`}
      </Txt>
      {job.sound && (
        <Txt kind="small" tone="quiet" testID="render-sound">
          {`Sound: ${SOUND_NAMES[job.sound.codec]}, ${levelText(job.sound.loudness)} LUFS, highest peak ${levelText(job.sound.peak)} dBTP.`}
        </Txt>
      )}
      <View style={[styles.line, styles.apart]}>
        <Button
          title="Download"
          kind="quiet"
          icon="download"
          onPress={() => saveFile(file, plan.fileName)}
          testID="render-download"
        />
        <IconButton
          icon="trash"
          label={`Remove ${plan.fileName} from the list`}
          onPress={() => void forgetRender(job.id)}
        />
      </View>
    </>
  );
}

/** Time left, from the frames done so far; looked at twice a second. */
function TimeLeft({ job }: { job: RenderJob }) {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 500);
    return () => clearInterval(timer);
  }, []);
  const made = job.frames - job.from;
  if (!job.startedAt || made < 3) return null;
  const each = (now - job.startedAt) / made / 1000;
  return <Txt kind="small" tone="quiet">{`, ${waitText(each * (job.plan.count - job.frames))} left`}</Txt>;
}

const styles = StyleSheet.create({
  job: {
    gap: 6,
    padding: 14,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  bar: { height: 8, borderRadius: 4, backgroundColor: colour.hairline, overflow: 'hidden' },
  done: { height: 8, backgroundColor: colour.leaf },
  still: { backgroundColor: colour.edge },
  line: { flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 8 },
  apart: { justifyContent: 'space-between' },
  order: { flexDirection: 'row', flexGrow: 1, justifyContent: 'flex-end' },
  figures: { fontVariant: ['tabular-nums'] },
});
