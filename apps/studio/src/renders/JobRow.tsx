import { rateLabel } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { saveFile } from '../media/files/pickFile';
import { cancelRender, forgetRender, type RenderJob } from '../render/jobs';
import { SOUND_NAMES } from '../render/soundCodec';
import { Button, IconButton } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { bytesText, secondsText, waitText } from '../ui/units';

const levelText = (decibels: number) => (Number.isFinite(decibels) ? decibels.toFixed(1) : '−∞');

/** One render: how far it is and how long it will take, or its file. */
export function JobRow({ job }: { job: RenderJob }) {
  const { plan } = job;
  const part = job.frames / plan.count;
  return (
    <View style={styles.job} testID={`job-${job.state}`}>
      <Txt kind="strong" numberOfLines={2}>
        {plan.fileName}
      </Txt>
      {job.state === 'running' && (
        <>
          <View
            role="progressbar"
            aria-label={`Rendering ${plan.fileName}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(part * 100)}
            testID="render-progress"
            style={styles.bar}
          >
            <View style={[styles.done, { width: `${part * 100}%` }]} />
          </View>
          <View style={styles.line}>
            <Txt kind="small" tone="quiet" style={styles.figures}>
              Frame {job.frames} of {plan.count}
              <TimeLeft job={job} />
            </Txt>
            <Button title="Cancel" kind="plain" onPress={() => cancelRender(job.id)} testID="render-cancel" />
          </View>
        </>
      )}
      {job.state === 'waiting' && (
        <View style={styles.line}>
          <Txt kind="small" tone="quiet">
            Waiting for the one before it.
          </Txt>
          <Button title="Cancel" kind="plain" onPress={() => cancelRender(job.id)} />
        </View>
      )}
      {job.state === 'done' && job.file && (
        <>
          <Txt kind="small" tone="leaf" testID="render-done">
            Done: {plan.count === 1 ? '1 frame' : `all ${job.frames} frames`}, {bytesText(job.file.size)}
            {plan.format === 'png' ? '' : `, ${rateLabel(plan.rate)} frames a second`}
            {job.seconds === undefined ? '' : `, in ${secondsText(job.seconds)}`}
          </Txt>
          {job.sound && (
            <Txt kind="small" tone="quiet" testID="render-sound">
              {`Sound: ${SOUND_NAMES[job.sound.codec]}, ${levelText(job.sound.loudness)} LUFS, highest peak ${levelText(job.sound.peak)} dBTP.`}
            </Txt>
          )}
          <View style={styles.line}>
            <Button
              title="Download"
              kind="quiet"
              icon="download"
              onPress={() => job.file && saveFile(job.file, plan.fileName)}
              testID="render-download"
            />
            <IconButton
              icon="trash"
              label={`Remove ${plan.fileName} from the list`}
              onPress={() => forgetRender(job.id)}
            />
          </View>
        </>
      )}
      {job.state === 'cancelled' && <Ended job={job} text="Cancelled. Nothing was kept." />}
      {job.state === 'fault' && (
        <Ended
          job={job}
          text={`Stopped at frame ${job.frames} of ${plan.count}: ${job.message ?? 'no reason was given.'}`}
          red
        />
      )}
    </View>
  );
}

function Ended({ job, text, red = false }: { job: RenderJob; text: string; red?: boolean }) {
  return (
    <View style={styles.line}>
      <Txt kind="small" tone={red ? 'red' : 'quiet'} style={styles.words}>
        {text}
      </Txt>
      <IconButton
        icon="x"
        label={`Take ${job.plan.fileName} off the list`}
        onPress={() => forgetRender(job.id)}
      />
    </View>
  );
}

/** Time left, from the frames done so far; looked at twice a second. */
function TimeLeft({ job }: { job: RenderJob }) {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 500);
    return () => clearInterval(timer);
  }, []);
  if (!job.startedAt || job.frames < 3) return null;
  const each = (now - job.startedAt) / job.frames / 1000;
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
  line: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 8 },
  figures: { fontVariant: ['tabular-nums'], flexShrink: 1 },
  words: { flex: 1 },
});
