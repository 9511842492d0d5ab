import type { FrameShape, Template } from '@fresh-reel/core';
import { listedOf } from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { WearingToggle } from '../brand/WearingToggle';
import { ownFill } from '../preview/ownFill';
import { TemplatePreview } from '../preview/TemplatePreview';
import { FRAME_SHAPES, summaryOf } from '../preview/templateFacts';
import { SkipLink } from '../shell/SkipLink';
import { useTitle } from '../shell/useTitle';
import { useBrand, useMediaList, usePreferences } from '../storage/queries';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { CORNER, colour, useIsWide } from '../ui/theme';
import { webProps } from '../ui/web';
import { TemplatesHeader } from './TemplatesHeader';
import { useRounds } from './useRounds';
import { useStartReel } from './useStartReel';

/** Two to four templates beside each other, playing in step, with the user's own words, pictures and brand. */
export function ComparePlace({ templates }: { templates: readonly Template[] }) {
  const wide = useIsWide();
  const { width } = useWindowDimensions();
  useTitle('Side by side');
  const brand = useBrand();
  const { data: media = [] } = useMediaList();
  const { wearing } = usePreferences();
  const [shape, setShape] = useState<FrameShape>(templates[0]!.shape);
  const [words, setWords] = useState('');
  const [mine, setMine] = useState(false);
  const { start, fault } = useStartReel();
  const round = useRounds(Math.max(...templates.map((t) => listedOf(t).seconds)));
  const pictures = useMemo(
    () => media.filter((m) => m.kind === 'picture' || m.kind === 'clip').map((m) => `sha256:${m.hash}`),
    [media],
  );
  const fills = useMemo(() => {
    const lines = words.split('\n').filter((line) => line.trim() !== '');
    const worn = (wearing && brand) || undefined;
    return templates.map((t) => ownFill(t, lines, mine ? pictures : [], worn));
  }, [templates, words, mine, pictures, wearing, brand]);
  const columns = columnsFor(shape, width, templates.length);
  return (
    <View style={styles.screen} testID="compare-place">
      <SkipLink />
      <TemplatesHeader title="Side by side" />
      <ScrollView
        contentContainerStyle={[styles.body, wide && styles.bodyWide]}
        role="main"
        {...webProps({ id: 'content', tabIndex: -1 })}
      >
        {fault && <Banner kind="fault">{fault}</Banner>}
        <View style={styles.grid}>
          {templates.map((template, i) => (
            <View
              key={template.id}
              style={{ width: `calc(${100 / columns}% - ${16 - 16 / columns + 0.1}px)` } as object}
              testID={`compared-${template.id}`}
            >
              <View style={styles.picture}>
                <TemplatePreview
                  key={shape}
                  template={template}
                  shape={shape}
                  moving
                  fill={fills[i]}
                  round={round}
                />
              </View>
              <View style={styles.caption}>
                <View style={styles.grow}>
                  <Txt kind="strong" level={2} numberOfLines={1}>
                    {template.name}
                  </Txt>
                  <Txt kind="small" tone="quiet" numberOfLines={2}>
                    {summaryOf(listedOf(template))}
                  </Txt>
                </View>
                <Button
                  title="Use"
                  label={`Use ${template.name}`}
                  small
                  kind={i === 0 ? 'next' : 'quiet'}
                  onPress={() => void start(template, shape, wearing, fills[i])}
                  testID={`use-${template.id}`}
                />
              </View>
            </View>
          ))}
        </View>
        <View style={styles.tools}>
          <Choice
            label="Shape of the frame"
            testID="frame-shape"
            value={shape}
            options={FRAME_SHAPES}
            onChange={setShape}
          />
          <Field
            label="Your words, a line for each text"
            value={words}
            onChangeText={setWords}
            multiline
            testID="compare-words"
          />
          {pictures.length > 0 && (
            <Toggle
              label={`With my pictures (${pictures.length} on the shelf)`}
              value={mine}
              onChange={setMine}
              testID="compare-pictures"
            />
          )}
          <WearingToggle />
        </View>
      </ScrollView>
    </View>
  );
}

/** How many stand in a row: all of them, where there is room. */
function columnsFor(shape: FrameShape, width: number, count: number): number {
  if (shape !== 'wide') return width < 600 ? Math.min(2, count) : count;
  if (width < 600) return 1;
  return count === 3 && width >= 1100 ? 3 : Math.min(2, count);
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  grow: { flex: 1 },
  body: { padding: 16, paddingBottom: 48, gap: 24 },
  bodyWide: { padding: 32, maxWidth: 1400, width: '100%', marginHorizontal: 'auto' },
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
  caption: { flexDirection: 'row', alignItems: 'center', gap: 10, paddingTop: 8 },
  tools: { gap: 14, maxWidth: 620 },
});
