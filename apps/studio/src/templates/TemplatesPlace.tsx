import type { ListedTemplate, Use } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { WearingToggle } from '../brand/WearingToggle';
import { useOpenFile } from '../files/useOpenFile';
import { startPreviews } from '../preview/previewClient';
import { USE_NAMES } from '../preview/templateFacts';
import { useKept } from '../shell/kept';
import { Place } from '../shell/Place';
import { RemovedList } from '../shell/RemovedList';
import { useBrand, useMediaList, usePreferences, useSetPreferences } from '../storage/queries';
import { useTemplates } from '../storage/useTemplates';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { useIsWide } from '../ui/theme';
import { VirtualGrid } from '../ui/VirtualGrid';
import { elementOf } from '../ui/web';
import { SieveSheet } from './SieveSheet';
import { TemplateSearch } from './search';
import { offered, type Sieve, setOf, sifted } from './sieve';
import { TemplateCard } from './TemplateCard';

const NONE: readonly ListedTemplate[] = [];

/** Templates that are looked at side by side, at most. */
const MOST_COMPARED = 4;

/** Milliseconds after which the first stills are there. */
const AFTER_STILLS = 600;

/** What templates are shown: of a use, those the user comes back to, or of a group of theirs. */
type Kind = Use | 'all' | 'favourites' | 'recent' | 'own' | 'brand' | `group ${string}`;

const OTHER_KINDS: ReadonlySet<Kind> = new Set(['all', 'favourites', 'recent', 'own', 'brand']);

const groupKind = (name: string): Kind => `group ${name}`;

/** How many stand in a row. */
function columnsOf(width: number): number {
  if (width < 600) return 2;
  return width < 1200 ? 3 : width < 1640 ? 4 : width < 2000 ? 5 : 6;
}

/** The contact sheet: every template, those the user comes back to first, moving one at a time. */
export function TemplatesPlace() {
  const wide = useIsWide();
  const { width } = useWindowDimensions();
  const router = useRouter();
  const brand = useBrand();
  const { data: media } = useMediaList();
  const [search, setSearch] = useKept('templates search', '');
  const [wanted, setKind] = useKept<Kind>('templates use', 'all');
  const [sieve, setSieve] = useKept<Sieve>('templates sieve', {});
  const [finding, setFinding] = useState(false);
  const [compared, setCompared] = useState<readonly string[]>();
  const { wearing, favourites, recent, groups } = usePreferences();
  const setPreferences = useSetPreferences();
  const [pointed, setPointed] = useState<string>();
  const { templates, own, isLoading } = useTemplates();
  const { open, fault, sheet } = useOpenFile();
  const [removedFault, setRemovedFault] = useState<string>();
  const asked = search.trim() !== '';
  const index = useMemo(() => (asked ? new TemplateSearch(templates) : undefined), [templates, asked]);
  const found = useMemo(() => index?.find(search) ?? { templates, near: false }, [index, search, templates]);
  const liked = useMemo(() => new Set(favourites), [favourites]);
  const pictures = useMemo(
    () => (media ?? []).flatMap(({ width, height }) => (width && height ? [width / height] : [])),
    [media],
  );
  const special: { id: Kind; name: string }[] = [
    { id: 'all', name: 'All' },
    ...(favourites.length > 0 ? [{ id: 'favourites' as const, name: 'Favourites' }] : []),
    ...(brand && brand.templates.length > 0 ? [{ id: 'brand' as const, name: `For ${brand.name}` }] : []),
    ...(own.size > 0 ? [{ id: 'own' as const, name: 'Yours' }] : []),
    ...(recent.length > 0 ? [{ id: 'recent' as const, name: 'Used last' }] : []),
    ...groups.map(({ name }) => ({ id: groupKind(name), name })),
  ];
  const uses = useMemo(() => offered(templates, (t) => [t.use]) as Use[], [templates]);
  // What is there no more, as a group that was left empty, is not looked for.
  const kind = [...special.map(({ id }) => id), ...uses].includes(wanted) ? wanted : 'all';
  const shown = useMemo(() => {
    const isUse = !OTHER_KINDS.has(kind) && !kind.startsWith('group ');
    const { use: _, favourites: __, ...rest } = sieve;
    const wanted = { ...rest, ...(isUse ? { use: kind as Use } : {}), favourites: kind === 'favourites' };
    const passed = sifted(found.templates, wanted, liked, pictures);
    if (kind === 'brand') return passed.filter((t) => brand?.templates.includes(t.id));
    if (kind === 'own') return passed.filter((t) => own.has(t.id));
    if (kind.startsWith('group ')) {
      const ids = groups.find((g) => groupKind(g.name) === kind)?.templates ?? [];
      return passed.filter((t) => ids.includes(t.id));
    }
    if (kind !== 'recent') return passed;
    return recent.flatMap((id) => passed.find((t) => t.id === id) ?? []);
  }, [found, sieve, kind, liked, own, brand, recent, groups, pictures]);
  // What moves is painted apart; it gets ready once all stills are there.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    const waiting = setTimeout(() => {
      startPreviews();
      setReady(true);
    }, AFTER_STILLS);
    return () => clearTimeout(waiting);
  }, []);
  const { middle, refFor } = useMiddle();
  const moving = pointed ?? (wide || !ready ? undefined : middle);
  const set = setOf(sieve);
  const filters = (
    <Choice
      label="Use"
      testID="use"
      value={kind}
      options={[...special, ...uses.map((u) => ({ id: u, name: USE_NAMES[u] }))]}
      onChange={(v) => setKind(v as Kind)}
      oneRow
    />
  );
  const choose = (id: string) =>
    setCompared((held = []) =>
      held.includes(id) ? held.filter((h) => h !== id) : [...held, id].slice(-MOST_COMPARED),
    );
  return (
    <>
      <Place
        title="Templates"
        testID="templates"
        broad
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
        {!window.isSecureContext && (
          <Banner kind="watch" testID="not-secure">
            {`This address is not secure: ${window.location.host}. Titles are filled, saved, and rendered as pictures and by the server here. Video made in the browser, and work without a network, need https, or localhost.`}
          </Banner>
        )}
        {(fault ?? removedFault) && (
          <Banner kind="fault" testID="templates-fault">
            {(fault ?? removedFault)!}
          </Banner>
        )}
        <View style={styles.tools}>
          <View style={styles.finding}>
            <View style={styles.search}>
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
            <Button
              title={set > 0 ? `Find by ${set}` : 'Find by'}
              icon="sliders-horizontal"
              small
              onPress={() => setFinding(true)}
              testID="find-by"
            />
          </View>
          <ScrollView horizontal showsHorizontalScrollIndicator={false} style={!wide && styles.filters}>
            {filters}
          </ScrollView>
          <View style={styles.row}>
            <WearingToggle />
            <Toggle
              label="Compare some"
              value={compared !== undefined}
              onChange={(on) => setCompared(on ? [] : undefined)}
              testID="compare-some"
            />
          </View>
        </View>
        {found.near && shown.length > 0 && (
          <Txt tone="quiet" testID="nearest">
            No template answers to all of that. These come nearest.
          </Txt>
        )}
        {shown.length === 0 && !isLoading && (
          <View style={styles.none}>
            <Txt tone="quiet">No template answers to that. Try fewer words, or ask for less.</Txt>
            <Button
              title="Show all"
              small
              onPress={() => {
                setSearch('');
                setKind('all');
                setSieve({});
              }}
              testID="show-all"
            />
          </View>
        )}
        <VirtualGrid
          // All at once: one's own would push the others from under the finger.
          items={isLoading ? NONE : shown}
          keyOf={(t) => t.id}
          columns={columnsOf(width)}
          gap={wide ? 24 : 16}
          height={wide ? 290 : 200}
          render={(template) => (
            <View ref={refFor(template.id)}>
              <TemplateCard
                template={template}
                isOwn={own.has(template.id)}
                moving={moving === template.id}
                brand={wearing ? brand : undefined}
                onPoint={(on) => setPointed(on ? template.id : undefined)}
                favourite={liked.has(template.id)}
                onFavourite={() => setPreferences({ favourites: toggled(favourites, template.id) })}
                chosen={compared?.includes(template.id)}
                onChoose={() => choose(template.id)}
              />
            </View>
          )}
        />
        <RemovedList kind="template" title="Templates that were taken out" onFault={setRemovedFault} />
      </Place>
      {compared && compared.length > 1 && (
        <View style={[styles.bar, !wide && styles.barNarrow]}>
          <Button
            title={`Compare ${compared.length} side by side`}
            kind="next"
            onPress={() => router.push(`/templates/compare?ids=${compared.join(',')}` as never)}
            testID="compare"
          />
        </View>
      )}
      {sheet}
      {finding && (
        <SieveSheet
          sieve={sieve}
          onChange={setSieve}
          onClose={() => setFinding(false)}
          moods={offered(templates, (t) => t.moods)}
          sets={offered(templates, (t) => (t.set ? [t.set] : []))}
          count={shown.length}
          pictures={pictures.length}
        />
      )}
    </>
  );
}

const toggled = (list: readonly string[], id: string) =>
  list.includes(id) ? list.filter((held) => held !== id) : [id, ...list];

/** Which of several views is nearest the middle of the window: the one that moves on a phone. */
function useMiddle() {
  const views = useRef(new Map<string, HTMLElement>());
  const [middle, setMiddle] = useState<string>();
  const look = useCallback(() => {
    const centre = window.innerHeight / 2;
    let best: { id: string; far: number } | undefined;
    for (const [id, element] of views.current) {
      const box = element.getBoundingClientRect();
      const far = Math.abs(box.top + box.height / 2 - centre);
      if (!best || far < best.far) best = { id, far };
    }
    setMiddle(best?.id);
  }, []);
  const soon = useRef<number>(undefined);
  useEffect(() => {
    window.addEventListener('scroll', look, true);
    window.addEventListener('resize', look);
    return () => {
      window.removeEventListener('scroll', look, true);
      window.removeEventListener('resize', look);
      cancelAnimationFrame(soon.current ?? 0);
      soon.current = undefined;
    };
  }, [look]);
  // With other views another may be nearest; those of a long list come after it.
  const refFor = (id: string) => (view: View | null) => {
    const element = elementOf({ current: view });
    if (element) views.current.set(id, element);
    else views.current.delete(id);
    soon.current ??= requestAnimationFrame(() => {
      soon.current = undefined;
      look();
    });
  };
  return { middle, refFor };
}

const styles = StyleSheet.create({
  tools: { gap: 10 },
  finding: { flexDirection: 'row', alignItems: 'center', gap: 10, maxWidth: 520 },
  search: { flex: 1 },
  // Filters run on to the edge of a phone, which tells that there are more.
  filters: { marginHorizontal: -16, paddingHorizontal: 16 },
  row: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20 },
  none: { gap: 12, alignItems: 'flex-start' },
  bar: {
    position: 'absolute',
    bottom: 24,
    left: 0,
    right: 0,
    alignItems: 'center',
    pointerEvents: 'box-none',
  },
  // Above the places, which are within the thumb's reach.
  barNarrow: { bottom: 76 },
});
