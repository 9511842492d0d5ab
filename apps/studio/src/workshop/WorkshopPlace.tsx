import type { FrameShape } from '@fresh-reel/core';
import { BEGINNINGS, beginTemplate } from '@fresh-reel/core/make';
import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { FRAME_SHAPES } from '../preview/templateFacts';
import { Place } from '../shell/Place';
import { newId } from '../storage/ids';
import { useBenches, useDeleteReel, useRemovedChange } from '../storage/queries';
import { putBack } from '../storage/removed';
import type { ReelSummary } from '../storage/summaries';
import { onWritten } from '../storage/tabs';
import { useTemplates, wholeTemplate } from '../storage/useTemplates';
import { useBegin } from '../templates/useBegin';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { LinkPress } from '../ui/LinkPress';
import { Part } from '../ui/Part';
import { Press } from '../ui/Press';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { CORNER, colour, useIsWide } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { PickSheet } from './fields/PickSheet';

/** Where templates are made: what stands on a bench already, from nothing, or from one that is there. */
export function WorkshopPlace() {
  const wide = useIsWide();
  const { data: benches = [], refetch } = useBenches();
  const { templates } = useTemplates();
  const { begin, open, fault } = useBegin();
  const [shape, setShape] = useState<FrameShape>('wide');
  const [opening, setOpening] = useState(false);
  const [failed, setFailed] = useState<string>();
  useEffect(() => onWritten(() => void refetch()), [refetch]);
  const made = benches.flatMap((b) => (b.kind === 'reel' ? [b.summary] : []));
  const start = (id: (typeof BEGINNINGS)[number]['id'], name: string) =>
    void begin(beginTemplate(id, { id: newId(), name: `My ${name.toLowerCase()}`, shape }));
  return (
    <Place
      title="Workshop"
      testID="workshop"
      beside={
        <Button
          title="Open a template"
          icon="layout-grid"
          onPress={() => setOpening(true)}
          testID="open-template"
        />
      }
    >
      {(fault ?? failed) && <Banner kind="fault">{(fault ?? failed)!}</Banner>}
      {made.length > 0 && (
        <Part title="On the bench">
          {made.map((bench) => (
            <BenchRow key={bench.id} bench={bench} onFault={setFailed} />
          ))}
        </Part>
      )}
      <Part title="From nothing">
        <Txt tone="quiet">
          Begin with an empty frame, or with a kind of title and make it yours. Nothing has to be written in
          code.
        </Txt>
        <Choice
          label="Frame it is made for first"
          value={shape}
          options={FRAME_SHAPES}
          onChange={setShape}
          testID="begin-shape"
        />
        <View style={styles.kinds}>
          {BEGINNINGS.map(({ id, name, about }) => (
            <View key={id} style={{ width: wide ? '23.5%' : '48%' }}>
              <Press
                role="button"
                aria-label={`Begin: ${name}. ${about}`}
                onPress={() => start(id, name)}
                style={styles.kind}
                testID={`begin-${id}`}
              >
                <KindPicture id={id} shape={shape} />
                <Txt kind="strong">{name}</Txt>
                <Txt kind="small" tone="quiet">
                  {about}
                </Txt>
              </Press>
            </View>
          ))}
        </View>
      </Part>
      {opening && (
        <PickSheet
          title="Which template?"
          options={templates}
          onChoose={(id) => {
            setOpening(false);
            void wholeTemplate(id).then((found) => found && open(found));
          }}
          onClose={() => setOpening(false)}
        />
      )}
    </Place>
  );
}

/** What a beginning looks like, painted while it is near the screen. */
function KindPicture({ id, shape }: { id: (typeof BEGINNINGS)[number]['id']; shape: FrameShape }) {
  const { ref, near } = useNearScreen();
  const template = useMemo(() => beginTemplate(id, { id: `begin-${id}`, name: id, shape }), [id, shape]);
  return (
    <View ref={ref} style={[styles.picture, shape !== 'wide' && styles.narrow]}>
      {near && <TemplatePreview key={shape} template={template} shape={shape} moving={false} />}
    </View>
  );
}

function BenchRow({
  bench: { id, name, changed },
  onFault,
}: {
  bench: ReelSummary;
  onFault: (text: string) => void;
}) {
  const remove = useDeleteReel();
  const restore = useRemovedChange(putBack);
  const toast = useToast();
  const away = () =>
    remove.mutate(
      { id, name },
      {
        onError: (e) => onFault(e.message),
        onSuccess: () =>
          toast({
            text: `“${name}” is off the bench.`,
            action: {
              title: 'Put it back',
              run: () => restore.mutate({ kind: 'reel', id }, { onError: (e) => onFault(e.message) }),
            },
          }),
      },
    );
  return (
    <View style={styles.bench} testID={`bench-${id}`}>
      <LinkPress href={`/workshop/${id}`} style={styles.name} testID={`open-bench-${id}`}>
        <Txt kind="strong">{name}</Txt>
        <Txt kind="small" tone="quiet">
          {`worked on ${new Date(changed).toLocaleDateString()}`}
        </Txt>
      </LinkPress>
      <IconButton
        icon="trash"
        label={`Take ${name} off the bench`}
        onPress={away}
        testID={`clear-bench-${id}`}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  kinds: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  kind: {
    gap: 4,
    padding: 8,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  picture: {
    borderRadius: CORNER - 3,
    overflow: 'hidden',
    backgroundColor: colour.surround,
    marginBottom: 4,
    minHeight: 60,
  },
  narrow: { paddingHorizontal: '28%' },
  bench: {
    flexDirection: 'row',
    alignItems: 'center',
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  name: { flex: 1, padding: 12, minHeight: 56, borderRadius: CORNER },
});
