import type { Template, Use } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useOpenFile } from '../files/useOpenFile';
import { Place } from '../shell/Place';
import { useBrand } from '../storage/queries';
import { useTemplates } from '../storage/useTemplates';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { lengthOf, matches, takes, USE_NAMES } from './facts';
import { TemplatePreview } from './TemplatePreview';

/** The contact sheet: every template, moving one at a time. */
export function TemplatesPlace() {
  const wide = useIsWide();
  const { data: brand } = useBrand();
  const [search, setSearch] = useState('');
  const [use, setUse] = useState<Use | 'all'>('all');
  const [branded, setBranded] = useState(false);
  const [pointed, setPointed] = useState<string>();
  const { middle, refFor } = useMiddle();
  const { templates, own } = useTemplates();
  const { open, fault } = useOpenFile();
  const uses = [...new Set(templates.map((t) => t.use))];
  const shown = templates.filter((t) => (use === 'all' || t.use === use) && matches(t, search));
  const moving = wide ? pointed : (pointed ?? middle);
  return (
    <Place
      title="Templates"
      testID="templates"
      beside={
        <Button title="Open a file" icon="folder" onPress={() => void open()} testID="open-template-file" />
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
        <Choice
          label="Use"
          testID="use"
          value={use}
          options={[{ id: 'all', name: 'All' }, ...uses.map((u) => ({ id: u, name: USE_NAMES[u] }))]}
          onChange={(v) => setUse(v as Use | 'all')}
        />
        {brand && (
          <Toggle label="Wearing my brand" value={branded} onChange={setBranded} testID="wearing-brand" />
        )}
      </View>
      {shown.length === 0 && (
        <Txt tone="quiet">No template answers to that. Try fewer words, or another use.</Txt>
      )}
      <View style={[styles.sheet, wide && styles.sheetWide]}>
        {shown.map((template) => (
          <View key={template.id} ref={refFor(template.id)} style={wide ? styles.cellWide : undefined}>
            <Card
              template={template}
              isOwn={own.has(template.id)}
              moving={moving === template.id}
              brand={branded ? brand : undefined}
              onPoint={(on) => setPointed(on ? template.id : undefined)}
            />
          </View>
        ))}
      </View>
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
  const router = useRouter();
  const { ref, near } = useNearScreen();
  return (
    <Press
      role="link"
      onPress={() => router.push(`/templates/${template.id}`)}
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
          {USE_NAMES[template.use]}, {lengthOf(template)}, {takes(template)}
        </Txt>
      </View>
    </Press>
  );
}

/** Which of several views is nearest the middle of the window: the one that moves on a phone. */
function useMiddle() {
  const views = useRef(new Map<string, HTMLElement>());
  const [middle, setMiddle] = useState<string>();
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
  }, []);
  const refFor = (id: string) => (view: View | null) => {
    if (view) views.current.set(id, view as unknown as HTMLElement);
    else views.current.delete(id);
  };
  return { middle, refFor };
}

const styles = StyleSheet.create({
  tools: { gap: 12 },
  toolsWide: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 20 },
  searchWide: { width: 300 },
  sheet: { gap: 28, paddingTop: 8 },
  sheetWide: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 32, rowGap: 40 },
  cellWide: { width: '47%', maxWidth: 580 },
  card: { gap: 10, borderRadius: 10 },
  picture: { borderRadius: 10, overflow: 'hidden', aspectRatio: 16 / 9, backgroundColor: colour.surround },
  caption: { gap: 2 },
});
