import {
  carriedFill,
  editionChanges,
  frameShape,
  messageOf,
  ofOtherEditions,
  setEdition,
  type Template,
} from '@fresh-reel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useAttempt } from '../../editing/session/useAttempt';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { putReelsBack, renewReels } from '../../storage/otherReels';
import { keys, useReels } from '../../storage/queries';
import { editionOf } from '../../storage/templates';
import { useTemplate, useTemplates } from '../../storage/useTemplates';
import { InStep } from '../../templates/InStep';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';

/** Offers a newer edition of the template that the graphic is made of; nothing where there is none. */
export function EditionOffer() {
  const newer = useNewer();
  const [looking, setLooking] = useState(false);
  if (!newer) return null;
  return (
    <>
      <Banner
        kind="info"
        testID="edition-offer"
        action={
          <Button title="See what changes" small onPress={() => setLooking(true)} testID="edition-look" />
        }
      >
        {`There is a newer edition of “${newer.name}”. This title stays as it is until you take it.`}
      </Banner>
      {looking && <OfferSheet newer={newer} onClose={() => setLooking(false)} />}
    </>
  );
}

/** The newest edition of the graphic's template: of one of the user's by its number, of one that ships if it differs. */
function useNewer(): Template | undefined {
  const { template } = useGraphicEditor().graphic;
  const { templates, own } = useTemplates();
  const listed = templates.find((t) => t.id === template.id);
  const isOwn = own.has(template.id);
  // Those of the user's are told apart by their number; one that ships has to be looked at.
  const mayBeNewer = listed !== undefined && (!isOwn || listed.edition > editionOf(template));
  const { template: newest } = useTemplate(mayBeNewer ? template.id : undefined);
  return useMemo(() => {
    if (!newest || newest === template) return undefined;
    return isOwn || editionChanges(template, newest).length > 0 ? newest : undefined;
  }, [newest, isOwn, template]);
}

/** What would change, said and shown; then for this title, for all of the reel, or for every reel, by name. */
function OfferSheet({ newer, onClose }: { newer: Template; onClose: () => void }) {
  const { reel, graphic } = useGraphicEditor();
  const attempt = useAttempt();
  const toast = useToast();
  const client = useQueryClient();
  const { data: reels = [] } = useReels();
  const { template, fill } = graphic;
  const changes = useMemo(() => editionChanges(template, newer), [template, newer]);
  const carried = useMemo(() => carriedFill(template, fill, newer), [template, fill, newer]);
  const here = ofOtherEditions(reel, newer);
  const others = reels.flatMap((r) =>
    r.kind === 'reel' && r.id !== reel.id && r.summary.templateIds.includes(newer.id) ? [r.summary] : [],
  );
  const take = (ids: readonly string[]) => {
    const done = attempt((r) => setEdition(r, ids, newer));
    if (done) onClose();
    return done;
  };
  const listed = () => client.invalidateQueries({ queryKey: keys.reels });
  const failed = (error: unknown) => toast({ text: messageOf(error) });
  const takeBack = async (ids: readonly string[]) => {
    const { left } = await putReelsBack(ids);
    await listed();
    toast({ text: ['The other reels are as they were.', ...left].join(' ') });
  };
  const everywhere = async () => {
    if (here.length > 0 && !take(here)) return;
    const { changed, left } = await renewReels(
      others.map((o) => o.id),
      newer,
    );
    await listed();
    onClose();
    toast({
      text: [
        `${changed.length} more ${changed.length === 1 ? 'reel has' : 'reels have'} it now.`,
        ...left,
      ].join(' '),
      ...(changed.length > 0
        ? { action: { title: 'Take it back there', run: () => void takeBack(changed).catch(failed) } }
        : {}),
    });
  };
  const sides = [
    { name: 'Now', template, fill },
    { name: 'With the newer edition', template: newer, fill: carried.fill },
  ] as const;
  return (
    <Sheet title={`A newer edition of “${newer.name}”`} onClose={onClose} testID="offer-sheet">
      <InStep sides={sides} shape={frameShape(reel.frame)} />
      <View style={styles.list} testID="offer-changes">
        {changes.map((line) => (
          <Txt key={line}>{line}</Txt>
        ))}
        {carried.behind.length > 0 && (
          <Txt tone="amber">Has no place there: {carried.behind.join(', ')}. Undo brings it back.</Txt>
        )}
      </View>
      <View style={styles.row}>
        <Button title="For this title" kind="next" onPress={() => take([graphic.id])} testID="offer-this" />
        {here.length > 1 && (
          <Button
            title={`For all ${here.length} in this reel`}
            onPress={() => take(here)}
            testID="offer-reel"
          />
        )}
      </View>
      {others.length > 0 && (
        <View style={styles.list}>
          <Txt testID="offer-others">
            {`Also made with it: ${others.map(({ name }) => `“${name}”`).join(', ')}.`}
          </Txt>
          <View style={styles.row}>
            <Button
              title="For this reel and those"
              onPress={() => void everywhere().catch(failed)}
              testID="offer-everywhere"
            />
          </View>
        </View>
      )}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { gap: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
