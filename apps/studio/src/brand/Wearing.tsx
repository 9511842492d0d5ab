import type { Brand } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { useSomeTemplates, useTemplates } from '../storage/useTemplates';
import { Txt } from '../ui/Txt';
import { CORNER, colour, useIsWide } from '../ui/theme';
import { webStyle } from '../ui/web';

/** How many are shown. */
const SHOWN = 3;
/** Those that show most of a brand, where it has none of its own. */
const TELLING = ['name-strap', 'gust-sting', 'mask-rise'];

/** Templates that wear the brand as it is just now: its own first. */
export function Wearing({ brand }: { brand: Brand }) {
  const wide = useIsWide();
  const { templates } = useTemplates();
  const there = new Set(templates.map((t) => t.id));
  const wanted = [...new Set([...brand.templates, ...TELLING])].filter((id) => there.has(id));
  const { templates: shown } = useSomeTemplates(wanted.slice(0, SHOWN));
  return (
    <View style={styles.row} testID="brand-worn" role="group" aria-label="Templates that wear it">
      {shown.map((template) => (
        <View key={template.id} style={styles.one}>
          <View style={styles.picture}>
            <TemplatePreview template={template} shape="wide" moving={wide} brand={brand} />
          </View>
          <Txt kind="small" tone="quiet" numberOfLines={1}>
            {template.name}
          </Txt>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  // In view whatever of the brand is being changed.
  row: webStyle({
    position: 'sticky',
    top: 0,
    zIndex: 1,
    flexDirection: 'row',
    gap: 10,
    paddingVertical: 8,
    maxWidth: 760,
    backgroundColor: colour.paper,
  }),
  one: { flex: 1, gap: 2 },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
});
