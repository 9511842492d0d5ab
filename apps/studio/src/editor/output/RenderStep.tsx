import {
  type Brand,
  type Extent,
  type FrameShape,
  formatFacts,
  graphicsOf,
  isFilmFormat,
  messageOf,
  movingPicture,
  OFFERED_RATES,
  offeredSize,
  offeredSizes,
  outputName,
  type Reel,
  type ReelCheck,
  ReelScene,
  type RenderFormat,
  rateLabel,
  rateText,
  sameRate,
  secondsAt,
  setMotionBlur,
  setOutput,
  setRate,
} from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useChecks } from '../../editing/session/useChecks';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { useSaveReelFile } from '../../files/useSaveFile';
import type { PreviewSurface } from '../../preview/previewClient';
import { useEstimate } from '../../render/measure/estimate';
import { useSupport } from '../../render/measure/support';
import { useSurvey } from '../../render/measure/survey';
import { startRender, useIsBusy, useRenderJobs } from '../../render/queue/jobs';
import { SOUND_BITRATE } from '../../render/workers/soundCodec';
import { JobRow } from '../../renders/JobRow';
import { useBrands } from '../../storage/queries';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Part } from '../../ui/Part';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { bytesText, secondsText, waitText } from '../../ui/units';
import { plansOf } from '../plans/plansOf';
import { TableSheet } from '../table/TableSheet';
import { ChecksPart } from './ChecksPart';
import { CostPart } from './CostPart';
import { ExtentPart } from './ExtentPart';
import { FormatPart } from './FormatPart';
import { ForOtherTools } from './ForOtherTools';
import { NamesPart } from './NamesPart';
import { SoundPart } from './SoundPart';

const NO_BRANDS: readonly Brand[] = [];

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
  const toast = useToast();
  const { samples } = reel.motionBlur;
  const footage = reel.output?.extent !== 'titles' && reel.output?.extent !== 'each-title';
  const transparent = useMemo(
    () => !footage || new ReelScene(reel, DOCUMENT_ONLY).transparent,
    [reel, footage],
  );
  // What was chosen stays with the reel; its rate is the reel's own, in which the time code counts.
  const { rate } = reel;
  const format: RenderFormat = reel.output?.format ?? (transparent ? 'webm' : 'mp4');
  const side = reel.output?.side ?? Math.min(reel.frame.width, reel.frame.height);
  const choose = (part: Partial<NonNullable<Reel['output']>>) => {
    edit((r) => setOutput(r, { ...r.output, format, side, ...part }));
    settle();
  };
  /** Whether what is rendered has pictures. */
  const seen = format !== 'wav';
  const { extent = 'all', range, draft = false } = reel.output ?? {};
  const [shapes, setShapes] = useState<readonly FrameShape[]>([]);
  const { data: brands = NO_BRANDS } = useBrands();
  const [worn, setWorn] = useState<readonly string[]>([]);
  const [table, setTable] = useState(false);
  const checks = useChecks(reel);
  const jobs = useRenderJobs().filter((j) => j.reelId === reel.id);

  const sizes = offeredSizes(reel.frame);
  const size = offeredSize(reel.frame, side);
  const support = useSupport(format, size, rate);
  const fileName = outputName(reel, format, size, rate);
  const onePicture = { format, ...size, rate, from: surface.position, count: 1, fileName };
  const plans =
    format === 'png'
      ? [{ reel, plan: onePicture }]
      : plansOf(reel, {
          ...{ format, side, extent, range, shapes, draft },
          brands: worn.flatMap((id) => brands.find((b) => b.id === id) ?? []),
        });
  const count = plans.reduce((sum, { plan }) => sum + plan.count, 0);
  const [first] = plans;
  const empty = reel.tracks.every((t) => t.items.length === 0);
  const busy = useIsBusy();
  // Measured on the first of them; the others go with their lengths.
  const { estimate: measured, measuring } = useEstimate(
    first?.reel ?? reel,
    { ...(first?.plan ?? onePicture), from: format === 'png' ? 0 : (first?.plan.from ?? 0) },
    // A single picture is rendered as soon as it could be measured.
    first !== undefined && support?.able === true && !busy && format !== 'png',
  );
  const times = first ? count / first.plan.count : 1;
  // What is measured has the machine to itself; what is looked at comes after it.
  const atRest = support !== undefined && !measuring && !busy;
  const { survey, fault: surveyFault } = useSurvey(reel, atRest && !empty);
  // A sequence has its sound beside it, in a file of its own; moving pictures have none.
  const silent = format === 'png-sequence' || movingPicture(format) !== undefined;
  const soundBytes = heard && !silent ? (SOUND_BITRATE / 8) * secondsAt(count, rate) : 0;
  const start = () => {
    for (const { reel: part, plan } of plans)
      startRender(part, plan).catch((error: unknown) =>
        toast({ text: `${plan.fileName} could not be put in the queue. ${messageOf(error)}` }),
      );
  };
  return (
    <View style={styles.all}>
      <Part title="File">
        <FormatPart
          format={format}
          onChange={(f) => choose({ format: f })}
          heard={heard}
          size={size}
          rate={rate}
          transparent={transparent}
        />
        {support?.able === false && (
          <Banner kind="watch" testID="codec-missing">
            {support.why}
          </Banner>
        )}
      </Part>
      {seen && format !== 'png' && (
        <Part title="Draft or final">
          <Choice
            label="Draft or final"
            testID="output-draft"
            value={draft ? 'draft' : 'final'}
            options={[
              { id: 'final', name: 'Final' },
              { id: 'draft', name: 'Draft' },
            ]}
            onChange={(v) => choose({ draft: v === 'draft' })}
          />
          <Txt kind="small" tone="quiet">
            {draft
              ? `To look over, and quickly: at ${first ? `${first.plan.width} × ${first.plan.height}` : 'half the size'}, without motion blur, its soft parts plainer.`
              : 'In full, for the film.'}
          </Txt>
        </Part>
      )}
      {seen && (
        <Part title="Size">
          <Choice
            label="Size in pixels"
            testID="output-size"
            value={String(side)}
            options={sizes.map((s) => ({
              id: String(Math.min(s.width, s.height)),
              name: `${s.width} × ${s.height}`,
            }))}
            onChange={(v) => choose({ side: Number(v) })}
          />
        </Part>
      )}
      {format !== 'png' && (
        <Part title="Frames a second">
          <Choice
            label="Frames a second"
            testID="output-rate"
            value={rateText(rate)}
            options={OFFERED_RATES.map((r) => ({ id: rateText(r), name: rateLabel(r) }))}
            onChange={(v) => {
              edit((r) => setRate(r, OFFERED_RATES.find((o) => rateText(o) === v) ?? rate));
              settle();
            }}
          />
          <Txt kind="small" tone="quiet">
            {sameRate(rate, { num: 60000, den: 1001 })
              ? '59.94 is what smooth titles usually go out at.'
              : 'Match the footage it will lie over.'}
          </Txt>
        </Part>
      )}
      {format !== 'png' && (
        <ExtentPart
          extent={extent}
          range={range}
          playhead={() => surface.position}
          onChange={choose}
          shapes={shapes}
          onShapes={setShapes}
          brands={brands}
          worn={worn}
          onWorn={setWorn}
        />
      )}
      <NamesPart
        names={reel.output?.names}
        nameOf={(names) =>
          outputName({ ...reel, output: { format, side, ...(names ? { names } : {}) } }, format, size, rate)
        }
        onChange={(names) => choose({ names })}
      />
      {seen && (
        <Part title="Motion blur">
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
              onChange={(degrees) =>
                edit((r) => setMotionBlur(r, { ...r.motionBlur, shutter: degrees / 360 }))
              }
              onSettle={settle}
              testID="shutter"
            />
          )}
          <Txt kind="small" tone="quiet">
            {samples > 1
              ? 'Each frame is the mean of so many moments: 8 is reasonable, 12 to 20 finer.'
              : 'Off: each frame is one sharp moment, the quickest to render.'}
          </Txt>
        </Part>
      )}
      {heard && (
        <SoundPart
          survey={survey}
          wanted={reel.output?.loudness}
          onWanted={(loudness) => choose({ loudness })}
        />
      )}
      <ChecksPart checked={checks} survey={survey} fault={surveyFault} onShow={onShow} />
      <View style={styles.group}>
        <Txt tone="quiet" testID="render-estimate">
          {plans.length > 1 ? `${plans.length} files, ` : ''}
          {!seen
            ? `Sound of ${secondsText(secondsAt(count, rate))}`
            : count === 1
              ? '1 frame'
              : `${count} frames`}
          {measured
            ? `, ${waitText(measured.seconds * times)}, about ${bytesText(measured.bytes * times + soundBytes)}, measured on some of them.`
            : busy || format === 'png' || !seen
              ? '.'
              : isFilmFormat(format)
                ? ', made by the app’s server.'
                : '; looking at some of them to see how long it takes…'}
        </Txt>
        {seen && format !== 'png' && !isFilmFormat(format) && (
          <CostPart first={first} able={support?.able === true && !busy && !measuring} />
        )}
        {empty ? (
          <Banner kind="watch">There is nothing in this reel yet. Place something first.</Banner>
        ) : (
          !first && <Banner kind="watch">{WHY_NONE[extent]}</Banner>
        )}
        {!seen && !heard && <Banner kind="watch">Nothing is heard in this reel. Choose another kind.</Banner>}
        <Button
          title={plans.length > 1 ? `Render ${plans.length} files` : 'Render'}
          kind="next"
          icon="film"
          onPress={start}
          disabled={support?.able !== true || !first || empty || (!seen && !heard)}
          testID="render-start"
        />
      </View>
      {jobs.length > 0 && (
        <Part title="Renders of this reel">
          {jobs.map((job) => (
            <JobRow key={job.id} job={job} />
          ))}
        </Part>
      )}
      {graphicsOf(reel).length > 0 && (
        <Part title="By a table">
          <Txt tone="quiet">
            A film for each row of a table: sixteen straps for sixteen people. Or a title for each, in this
            reel.
          </Txt>
          <View style={styles.start}>
            <Button
              title="Fill from a table"
              icon="list"
              onPress={() => setTable(true)}
              testID="table-begin"
            />
          </View>
          {table && <TableSheet format={format} onClose={() => setTable(false)} />}
        </Part>
      )}
      {graphicsOf(reel).length > 0 && (
        <ForOtherTools reel={reel} ending={formatFacts(seen ? format : 'webm').extension} size={size} />
      )}
      <Part title="Reel file">
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
      </Part>
    </View>
  );
}

/** Why a choice makes no file. */
const WHY_NONE: Readonly<Record<Extent, string>> = {
  all: '',
  range: 'Nothing lies between these two times. The second must come after the first, before the reel ends.',
  titles: 'There is no title in this reel yet.',
  'each-title': 'There is no title in this reel yet.',
};

const styles = StyleSheet.create({
  all: { gap: 26 },
  group: { gap: 10 },
  start: { flexDirection: 'row' },
});
