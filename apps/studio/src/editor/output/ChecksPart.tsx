import {
  checkText,
  graphicsOf,
  itemOf,
  loudnessCheck,
  mendsOf,
  type ReelCheck,
  timecodeAt,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import type { Checked } from '../../editing/session/useChecks';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { useMissing } from '../../media/useMissing';
import type { Survey } from '../../render/measure/survey';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { nameOf } from '../place/itemWords';

interface Props {
  /** What the documents tell. */
  readonly checked: Checked | undefined;
  /** What looking at the frames and listening tells. */
  readonly survey: Survey | undefined;
  readonly fault: Error | undefined;
  readonly onShow: (check: ReelCheck) => void;
}

/** What will be wrong in the file, where, and what takes it away. */
export function ChecksPart({ checked, survey, fault, onShow }: Props) {
  const { reel } = useReelEditor();
  const missing = useMissing(reel);
  // As high as the good news, so that nothing below moves when it comes.
  if (checked?.fault !== undefined)
    return <Banner kind="fault">{`The reel could not be checked: ${checked.fault}`}</Banner>;
  if (!checked?.checks)
    return <Banner kind="info">Looking at all words, pictures and places before the render…</Banner>;
  const loudness = survey?.heard ? loudnessCheck(survey.heard.facts, reel.output?.loudness) : [];
  const checks = [...checked.checks, ...loudness, ...(survey?.checks ?? [])];
  const looked = survey && survey.looked >= 1;
  return (
    <View style={styles.group}>
      {checks.length > 0 && (
        <Txt kind="lead" level={2}>
          Look at these first
        </Txt>
      )}
      {checks.map((check) => (
        <CheckRow
          key={`${check.item}/${check.kind}/${check.slot}/${check.frame}`}
          check={check}
          onShow={onShow}
        />
      ))}
      {checks.length === 0 && (
        <Banner kind="done">
          {missing.files.length + missing.families.length === 0
            ? 'All words fit, all pictures are here, and everything lies in the safe area.'
            : 'All words fit, and everything lies in the safe area. What is missing is told above.'}
        </Banner>
      )}
      <Txt kind="small" tone="quiet" testID="survey">
        {fault
          ? `Its frames could not be looked at: ${fault.message}`
          : looked
            ? 'Every frame was looked at, for flashes and for words that stand out too little.'
            : survey && survey.looked > 0
              ? `Looking at every frame for flashes: ${Math.floor(survey.looked * 100)}%.`
              : 'Every frame is looked at as soon as there is time, for flashes and for words that stand out too little.'}
      </Txt>
    </View>
  );
}

function CheckRow({ check, onShow }: { check: ReelCheck; onShow: (check: ReelCheck) => void }) {
  const { reel, edit, settle } = useReelEditor();
  const { kind, text } = checkText(check);
  const graphic = graphicsOf(reel).find((g) => g.id === check.item);
  const standing = itemOf(reel, check.item);
  // What is said of an item and no slot is said of its file; what is said of no item, of its place.
  const ofSound = check.kind === 'loudness' || check.kind === 'peaks';
  const name =
    (ofSound ? 'The sound' : undefined) ??
    graphic?.template.slots.find((s) => s.id === check.slot)?.name ??
    (standing ? nameOf(reel, standing.item) : check.slot || timecodeAt(check.frame, reel.rate));
  return (
    <Banner
      kind={kind}
      testID={`check-${check.kind}`}
      action={
        <>
          {!ofSound && <Button title={`Show ${name}`} small onPress={() => onShow(check)} />}
          {mendsOf(reel, check.item, check).map(({ name: title, change }, i) => (
            <Button
              key={title}
              title={title}
              small
              onPress={() => {
                edit(change);
                settle();
              }}
              testID={i === 0 ? `mend-${check.kind}` : `mend-${check.kind}-${i + 1}`}
            />
          ))}
        </>
      }
    >
      {`${name}: ${text}`}
    </Banner>
  );
}

const styles = StyleSheet.create({ group: { gap: 10 } });
