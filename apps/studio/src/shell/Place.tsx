import { usePathname, useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useRenderJobs } from '../render/jobs';
import { Icon, type IconName } from '../ui/Button';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { useTitle } from './useTitle';

const PLACES: readonly { path: string; name: string; icon: IconName }[] = [
  { path: '/templates', name: 'Templates', icon: 'grid' },
  { path: '/reels', name: 'Reels', icon: 'layers' },
  { path: '/shelf', name: 'Shelf', icon: 'archive' },
  { path: '/brand', name: 'Brand', icon: 'feather' },
  { path: '/renders', name: 'Renders', icon: 'film' },
];

/** One of the main places: its title, what stands beside it, its content, and the way to the other places. */
export function Place({
  title,
  beside,
  children,
  testID,
}: {
  title: string;
  beside?: ReactNode;
  children: ReactNode;
  testID?: string;
}) {
  const wide = useIsWide();
  useTitle(title);
  return (
    <View style={styles.screen} testID={testID}>
      {wide && <Places wide />}
      <ScrollView
        style={styles.scroll}
        contentContainerStyle={[styles.body, wide && styles.bodyWide]}
        role="main"
      >
        <View style={styles.head}>
          <Txt kind="display" level={1}>
            {title}
          </Txt>
          {beside}
        </View>
        {children}
      </ScrollView>
      {!wide && <Places wide={false} />}
    </View>
  );
}

function Places({ wide }: { wide: boolean }) {
  const path = usePathname();
  const router = useRouter();
  const running = useRenderJobs().filter((j) => j.state === 'running' || j.state === 'waiting').length;
  return (
    <View role="navigation" aria-label="Places" style={[styles.places, wide && styles.placesWide]}>
      {wide && (
        <Txt kind="title" style={styles.brand}>
          Fresh Reel
        </Txt>
      )}
      {PLACES.map((place) => {
        const here = path.startsWith(place.path);
        const name = place.path === '/renders' && running > 0 ? `${place.name} (${running})` : place.name;
        return (
          <Press
            key={place.path}
            role="link"
            aria-label={name}
            {...(here ? { 'aria-current': 'page' } : {})}
            onPress={() => router.navigate(place.path as never)}
            testID={`place-${place.path.slice(1)}`}
            style={[styles.place, wide && styles.placeWide, here && styles.here]}
          >
            <Icon name={place.icon} tint={here ? colour.ink : colour.quiet} size={20} />
            <Txt kind="label" tone={here ? 'ink' : 'quiet'}>
              {name}
            </Txt>
          </Press>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  scroll: { flex: 1 },
  body: { padding: 16, paddingBottom: 40, gap: 16 },
  bodyWide: {
    paddingHorizontal: 40,
    paddingTop: 28,
    maxWidth: 1280,
    width: '100%',
    marginHorizontal: 'auto',
  },
  head: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    justifyContent: 'space-between',
    gap: 8,
    minHeight: 48,
  },
  places: {
    flexDirection: 'row',
    borderTopWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  placesWide: {
    borderTopWidth: 0,
    borderBottomWidth: 1,
    paddingHorizontal: 40,
    alignItems: 'center',
    gap: 8,
  },
  brand: { marginRight: 24 },
  place: {
    flex: 1,
    minHeight: 58,
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    borderTopWidth: 3,
    borderColor: 'transparent',
  },
  placeWide: {
    flex: 0,
    flexBasis: 'auto',
    flexDirection: 'row',
    gap: 8,
    paddingHorizontal: 14,
    borderTopWidth: 0,
    borderBottomWidth: 3,
  },
  here: { borderColor: colour.accent },
});
