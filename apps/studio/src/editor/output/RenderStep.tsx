import {
  FORMAT_FACTS,
  type FrameSize,
  OFFERED_RATES,
  OUTPUT_FORMATS,
  type OutputFormat,
  offeredSizes,
  outputName,
  type Rate,
  type ReelCheck,
  ReelScene,
  rateLabel,
  rateText,
  sameRate,
  setMotionBlur,
} from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { useSaveReelFile } from '../../files/useSaveFile';
import type { PreviewSurface } from '../../preview/previewClient';
import { startRender, useRenderJobs } from '../../render/jobs';
import { useSoundCodec, useSupport } from '../../render/support';
import { JobRow } from '../../renders/JobRow';
import { Banner } from '../../ui/Banner';
import { Button, Icon } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { waitText } from '../../ui/units';
import { checkText } from '../session/checkText';
import { type Checked, useChecks } from '../session/useChecks';
import { useReelEditor } from '../session/useReelEditor';

/** Milliseconds a frame of one megapixel takes to encode, measured on a two-core machine without a GPU. */
const ENCODE_COST: Readonly<Record<OutputFormat, number>> = {
  mp4: 26,
  webm: 70,
  'png-sequence': 60,
  png: 60,
};

/** Sub-frame samples offered. Common practice: 8 is reasonable, 12 to 20 finer. */
const SAMPLES = [1, 4, 8, 12, 16, 20, 32] as const;

interface Props {
  readonly surface: PreviewSurface;
  readonly onShow: (check: ReelCheck) => void;
  /** Whether the reel has anything to hear. */
  readonly heard: boolean;
}

/** Checks, output, and the queue. */
export function RenderStep({ surface, onShow, heard }: Props) {
  const { reel, edit, settle } = useReelEditor();
  const saveReelFile = useSaveReelFile();
  const { samples } = reel.motionBlur;
  const scene = useMemo(() => new ReelScene(reel, DOCUMENT_ONLY), [reel]);
  const [format, setFormat] = useState<OutputFormat>(scene.transparent ? 'webm' : 'mp4');
  const [side, setSide] = useState(Math.min(reel.frame.width, reel.frame.height));
  const [rate, setRate] = useState<Rate>({ num: 60000, den: 1001 });
  const checks = useChecks(reel);
  const jobs = useRenderJobs().filter((j) => j.reelId === reel.id);

  const sizes = offeredSizes(reel.frame);
  const size = sizes.find((s) => Math.min(s.width, s.height) === side) ?? sizes[2]!;
  const support = useSupport(format, size, rate);
  const count = format === 'png' ? 1 : scene.frameCount(rate);
  const megapixels = (size.width * size.height) / 1e6;
  const seconds = (count * megapixels * (ENCODE_COST[format] + 6 * samples)) / 1000 + 1;
  const start = () => {
    const from =
      format === 'png'
        ? Math.round((surface.position * rate.num * reel.rate.den) / (rate.den * reel.rate.num))
        : 0;
    startRender(reel, { format, ...size, rate, from, count, fileName: outputName(reel, format, size, rate) });
  };
  return (
    <View style={styles.all}>
      <Checks checked={checks} onShow={onShow} />
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          File
        </Txt>
        <View role="radiogroup" aria-label="Kind of file" testID="output-format" style={styles.formats}>
          {OUTPUT_FORMATS.map((f) => (
            <FormatRow
              key={f}
              format={f}
              chosen={f === format}
              onChoose={() => setFormat(f)}
              size={size}
              rate={rate}
              transparent={scene.transparent}
            />
          ))}
        </View>
        {heard && <SoundNote format={format} />}
        {support?.able === false && (
          <Banner kind="watch" testID="codec-missing">
            {support.why}
          </Banner>
        )}
      </View>
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          Size
        </Txt>
        <Choice
          label="Size in pixels"
          testID="output-size"
          value={String(side)}
          options={sizes.map((s) => ({
            id: String(Math.min(s.width, s.height)),
            name: `${s.width} × ${s.height}`,
          }))}
          onChange={(v) => setSide(Number(v))}
        />
      </View>
      {format !== 'png' && (
        <View style={styles.group}>
          <Txt kind="lead" level={2}>
            Frames a second
          </Txt>
          <Choice
            label="Frames a second"
            testID="output-rate"
            value={rateText(rate)}
            options={OFFERED_RATES.map((r) => ({ id: rateText(r), name: rateLabel(r) }))}
            onChange={(v) => setRate(OFFERED_RATES.find((r) => rateText(r) === v) ?? rate)}
          />
          <Txt kind="small" tone="quiet">
            {sameRate(rate, { num: 60000, den: 1001 })
              ? '59.94 is what smooth titles usually go out at.'
              : 'Match the footage it will lie over.'}
          </Txt>
        </View>
      )}
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          Motion blur
        </Txt>
        <Choice
          label="Motion blur"
          testID="motion-blur"
          value={String(samples)}
          options={SAMPLES.map((n) => ({ id: String(n), name: n === 1 ? 'Off' : `${n} samples` }))}
          onChange={(n) => {
            edit((r) => setMotionBlur(r, { ...r.motionBlur, samples: Number(n) }));
            settle();
          }}
        />
        {samples > 1 && (
          <NumberRow
            name="Shutter open for"
            value={Math.round(reel.motionBlur.shutter * 360)}
            min={15}
            max={360}
            step={15}
            unit="°"
            rest={180}
            onChange={(degrees) => edit((r) => setMotionBlur(r, { ...r.motionBlur, shutter: degrees / 360 }))}
            onSettle={settle}
            testID="shutter"
          />
        )}
        <Txt kind="small" tone="quiet">
          {samples > 1
            ? 'Each frame is the mean of so many moments: 8 is reasonable, 12 to 20 finer.'
            : 'Off: each frame is one sharp moment, the quickest to render.'}
        </Txt>
      </View>
      <View style={styles.group}>
        <Txt tone="quiet" testID="render-estimate">
          {count === 1 ? '1 frame' : `${count} frames`}, {waitText(seconds)}
          {format === 'mp4' || format === 'webm'
            ? '; most of it goes into encoding.'
            : '; most of it goes into packing pictures.'}
        </Txt>
        <Button
          title="Render"
          kind="next"
          icon="film"
          onPress={start}
          disabled={support?.able !== true}
          testID="render-start"
        />
      </View>
      {jobs.length > 0 && (
        <View style={styles.group}>
          <Txt kind="lead" level={2}>
            Renders of this reel
          </Txt>
          {jobs.map((job) => (
            <JobRow key={job.id} job={job} />
          ))}
        </View>
      )}
      <View style={styles.group}>
        <Txt kind="lead" level={2}>
          Reel file
        </Txt>
        <Txt tone="quiet">
          All of this reel with its pictures, in one file: to keep, to hand on, or to render from the command
          line.
        </Txt>
        <View style={styles.start}>
          <Button
            title="Save the reel as a file"
            icon="save"
            onPress={() => saveReelFile(reel)}
            testID="save-reel-file"
          />
        </View>
      </View>
    </View>
  );
}

/** How the sound will be written, where that is not what one would expect. */
function SoundNote({ format }: { format: OutputFormat }) {
  const codec = useSoundCodec(format);
  if (!codec) return null;
  const words: Record<typeof codec, string> = {
    aac: 'The sound is written as AAC.',
    opus:
      format === 'mp4'
        ? 'This browser writes no AAC, so the sound goes in as Opus. Most editing programs read it; where one does not, take the PNG sequence, which has a WAV beside it.'
        : 'The sound is written as Opus.',
    mp3: 'This browser writes neither AAC nor Opus, so the sound goes in as MP3.',
    wav: 'The sound lies beside the pictures as a WAV file.',
    none:
      format === 'png'
        ? ''
        : 'This browser writes no sound for this kind of file. Take the PNG sequence, which has a WAV beside it.',
  };
  return words[codec] ? (
    <Txt kind="small" tone={codec === 'none' ? 'amber' : 'quiet'} testID="sound-note">
      {words[codec]}
    </Txt>
  ) : null;
}

function Checks({ checked, onShow }: { checked: Checked | undefined; onShow: (check: ReelCheck) => void }) {
  const { reel } = useReelEditor();
  const graphics = reel.tracks.flatMap((t) => t.graphics);
  // As high as the good news, so that nothing below moves when it comes.
  if (checked?.fault !== undefined)
    return <Banner kind="fault">{`The reel could not be checked: ${checked.fault}`}</Banner>;
  const checks = checked?.checks;
  if (!checks)
    return <Banner kind="info">Looking at all words, pictures and places before the render…</Banner>;
  if (checks.length === 0)
    return (
      <Banner kind="done">All words fit, all pictures are here, and everything lies in the safe area.</Banner>
    );
  return (
    <View style={styles.group}>
      <Txt kind="lead" level={2}>
        Look at these first
      </Txt>
      {checks.map((check) => {
        const { kind, text } = checkText(check);
        const graphic = graphics.find((g) => g.id === check.item);
        const name = graphic?.template.slots.find((s) => s.id === check.slot)?.name ?? check.slot;
        return (
          <Banner
            key={`${check.item}/${check.kind}/${check.slot}`}
            kind={kind}
            testID={`check-${check.kind}`}
            action={<Button title={`Show ${name}`} small onPress={() => onShow(check)} />}
          >
            {`${name}: ${text}`}
          </Banner>
        );
      })}
    </View>
  );
}

interface FormatProps {
  readonly format: OutputFormat;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly size: FrameSize;
  readonly rate: Rate;
  readonly transparent: boolean;
}

function FormatRow({ format, chosen, onChoose, size, rate, transparent }: FormatProps) {
  const facts = FORMAT_FACTS[format];
  const support = useSupport(format, size, rate);
  const able = support?.able !== false;
  const alpha = !transparent ? '' : facts.alpha ? ' Transparent.' : ' Black where this reel is transparent.';
  return (
    <Press
      role="radio"
      aria-checked={chosen}
      aria-label={facts.name}
      onPress={onChoose}
      testID={`output-format-${format}`}
      style={[styles.format, chosen && styles.chosen]}
    >
      <Icon name={chosen ? 'check-circle' : 'circle'} tint={chosen ? colour.ink : colour.edge} size={20} />
      <View style={styles.formatWords}>
        <Txt kind="strong">{facts.name}</Txt>
        <Txt kind="small" tone={able ? 'quiet' : 'amber'}>
          {able ? `${facts.about}.${alpha}` : 'Not in this browser.'}
        </Txt>
      </View>
    </Press>
  );
}

const styles = StyleSheet.create({
  all: { gap: 26 },
  group: { gap: 10 },
  start: { flexDirection: 'row' },
  formats: { gap: 8 },
  format: {
    flexDirection: 'row',
    gap: 12,
    alignItems: 'center',
    padding: 12,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  chosen: { borderColor: colour.ink },
  formatWords: { flex: 1 },
});
