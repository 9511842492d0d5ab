import type { Template, Use } from '@fresh-reel/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenFile } from '../files/useOpenFile';
import { useKept } from '../shell/kept';
import { Place } from '../shell/Place';
import { useBrand, usePreferences, useSetPreferences } from '../storage/queries';
import { useTemplates } from '../storage/useTemplates';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { LinkPress } from '../ui/LinkPress';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { VirtualGrid } from '../ui/VirtualGrid';
import { elementOf } from '../ui/web';
import { lengthOf, takes, USE_NAMES } from './facts';
import { TemplateSearch } from './search';
import { TemplatePreview } from './TemplatePreview';

/** The contact sheet: every template, moving one at a time. */
export function TemplatesPlace() {
  const wide = useIsWide();
  const { data: brand } = useBrand();
  const [search, setSearch] = useKept('templates search', '');
  const [use, setUse] = useKept<Use | 'all'>('templates use', 'all');
  const { wearing } = usePreferences();
  const setPreferences = useSetPreferences();
  const [pointed, setPointed] = useState<string>();
  const { templates, own } = useTemplates();
  const { open, fault } = useOpenFile();
  const uses = [...new Set(templates.map((t) => t.use))];
  const index = useMemo(() => new TemplateSearch(templates), [templates]);
  const found = useMemo(() => index.find(search), [index, search]);
  const shown = found.templates.filter((t) => use === 'all' || t.use === use);
  const { middle, refFor } = useMiddle(shown.map((t) => t.id).join());
  const moving = wide ? pointed : (pointed ?? middle);
  const filters = (
    <Choice
      label="Use"
      testID="use"
      value={use}
      options={[{ id: 'all', name: 'All' }, ...uses.map((u) => ({ id: u, name: USE_NAMES[u] }))]}
      onChange={(v) => setUse(v as Use | 'all')}
      oneRow={!wide}
    />
  );
  return (
    <Place
      title="Templates"
      testID="templates"
      beside={
        <Button
          title="Open a file"
          icon="folder"
          small={!wide}
          onPress={() => void open()}
          testID="open-template-file"
        />
      }
    >
      {fault && (
        <Banner kind="fault" testID="templates-fault">
          {fault}
        </Banner>
      )}
      <View style={[styles.tools, wide && styles.toolsWide]}>
        <View style={wide ? styles.searchWide : undefined}>
          <Field
            label="Search templates"
            hideLabel
            placeholder="Search by name, use or mood"
            value={search}
            onChangeText={setSearch}
            testID="search"
            inputMode="search"
          />
        </View>
        {wide ? (
          filters
        ) : (
          <ScrollView horizontal showsHorizontalScrollIndicator={false} style={styles.filters}>
            {filters}
          </ScrollView>
        )}
        {brand && (
          <Toggle
            label="Wearing my brand"
            value={wearing}
            onChange={(on) => setPreferences({ wearing: on })}
            testID="wearing-brand"
          />
        )}
      </View>
      {found.near && shown.length > 0 && (
        <Txt tone="quiet" testID="nearest">
          No template answers to all of that. These come nearest.
        </Txt>
      )}
      {shown.length === 0 && (
        <View style={styles.none}>
          <Txt tone="quiet">No template answers to that. Try fewer words, or another use.</Txt>
          <Button
            title="Show all"
            small
            onPress={() => {
              setSearch('');
              setUse('all');
            }}
            testID="show-all"
          />
        </View>
      )}
      <VirtualGrid
        items={shown}
        keyOf={(t) => t.id}
        columns={wide ? 2 : 1}
        gap={wide ? 36 : 24}
        height={wide ? 380 : 270}
        render={(template) => (
          <View ref={refFor(template.id)}>
            <Card
              template={template}
              isOwn={own.has(template.id)}
              moving={moving === template.id}
              brand={wearing ? brand : undefined}
              onPoint={(on) => setPointed(on ? template.id : undefined)}
            />
          </View>
        )}
      />
    </Place>
  );
}

interface CardProps {
  readonly template: Template;
  readonly isOwn: boolean;
  readonly moving: boolean;
  readonly brand: Parameters<typeof TemplatePreview>[0]['brand'];
  readonly onPoint: (on: boolean) => void;
}

function Card({ template, isOwn, moving, brand, onPoint }: CardProps) {
  const { ref, near } = useNearScreen();
  return (
    <LinkPress
      href={`/templates/${template.id}`}
      onHoverIn={() => onPoint(true)}
      onHoverOut={() => onPoint(false)}
      onFocus={() => onPoint(true)}
      onBlur={() => onPoint(false)}
      testID={`template-card-${template.id}`}
      style={styles.card}
    >
      <View ref={ref} style={styles.picture}>
        {near && <TemplatePreview template={template} shape="wide" moving={moving} brand={brand} />}
      </View>
      <View style={styles.caption}>
        <Txt kind="lead" level={2}>
          {template.name}
        </Txt>
        <Txt kind="small" tone="quiet">
          {isOwn ? 'Yours. ' : ''}
          {[USE_NAMES[template.use], lengthOf(template), takes(template)].filter(Boolean).join(', ')}
        </Txt>
      </View>
    </LinkPress>
  );
}

/**
 * Which of several views is nearest the middle of the window: the one that moves on a phone.
 * @param shown names the views that are there: with others, another may be nearest
 */
function useMiddle(shown: string) {
  const views = useRef(new Map<string, HTMLElement>());
  const [middle, setMiddle] = useState<string>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: other views, another middle
  useEffect(() => {
    const look = () => {
      const centre = window.innerHeight / 2;
      let best: { id: string; far: number } | undefined;
      for (const [id, element] of views.current) {
        const box = element.getBoundingClientRect();
        const far = Math.abs(box.top + box.height / 2 - centre);
        if (!best || far < best.far) best = { id, far };
      }
      setMiddle(best?.id);
    };
    look();
    window.addEventListener('scroll', look, true);
    window.addEventListener('resize', look);
    return () => {
      window.removeEventListener('scroll', look, true);
      window.removeEventListener('resize', look);
    };
  }, [shown]);
  const refFor = (id: string) => (view: View | null) => {
    const element = elementOf({ current: view });
    if (element) views.current.set(id, element);
    else views.current.delete(id);
  };
  return { middle, refFor };
}

const styles = StyleSheet.create({
  tools: { gap: 10 },
  toolsWide: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 20 },
  searchWide: { width: 300 },
  // Filters run on to the edge of a phone, which tells that there are more.
  filters: { marginHorizontal: -16, paddingHorizontal: 16 },
  none: { gap: 12, alignItems: 'flex-start' },
  card: { gap: 10, borderRadius: 10 },
  picture: { borderRadius: 10, overflow: 'hidden', aspectRatio: 16 / 9, backgroundColor: colour.surround },
  caption: { gap: 2 },
});
