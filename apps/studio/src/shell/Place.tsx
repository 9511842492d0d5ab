import { usePathname } from 'expo-router';
import { type ReactNode, useCallback, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { openNewer, useHasNewer } from '../offline/offline';
import { useIsBusy, useRenderJobs } from '../render/queue/jobs';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Icon, type IconName } from '../ui/Icon';
import { LinkPress } from '../ui/LinkPress';
import { Txt } from '../ui/Txt';
import { colour, useIsLow, useIsWide } from '../ui/theme';
import { useScrollPlace } from '../ui/useScrollPlace';
import { ScrollerProvider } from '../ui/VirtualGrid';
import { webProps } from '../ui/web';
import { keptScroll } from './kept';
import { SkipLink } from './SkipLink';
import { useTitle } from './useTitle';

const PLACES: readonly { path: string; name: string; icon: IconName }[] = [
  { path: '/templates', name: 'Templates', icon: 'layout-grid' },
  { path: '/reels', name: 'Reels', icon: 'layers' },
  { path: '/shelf', name: 'Shelf', icon: 'archive' },
  { path: '/brand', name: 'Brand', icon: 'feather' },
  { path: '/workshop', name: 'Workshop', icon: 'hammer' },
  { path: '/renders', name: 'Renders', icon: 'film' },
];

interface Props {
  readonly title: string;
  readonly beside?: ReactNode;
  readonly children: ReactNode;
  readonly testID?: string;
  /** Whether it takes all of a very wide screen. */
  readonly broad?: boolean;
}

/** One of the main places: its title, what stands beside it, its content, and the way to the other places. */
export function Place({ title, beside, children, testID, broad }: Props) {
  const wide = useIsWide();
  const low = useIsLow();
  useTitle(title);
  const scroller = useRef<ScrollView>(null);
  const node = useCallback(() => (scroller.current?.getScrollableNode() as HTMLElement | null) ?? null, []);
  // One comes back to where one was.
  useScrollPlace(scroller, title, keptScroll);
  return (
    <View style={[styles.screen, low && !wide && styles.screenLow]} testID={testID}>
      <SkipLink />
      {wide && <Places kind="wide" />}
      <ScrollView
        ref={scroller}
        style={styles.scroll}
        contentContainerStyle={[styles.body, wide && styles.bodyWide, wide && broad && styles.bodyBroad]}
        role="main"
        {...webProps({ id: 'content', tabIndex: -1 })}
      >
        <ScrollerProvider value={node}>
          <View style={styles.head}>
            <Txt kind={wide ? 'display' : 'title'} level={1}>
              {title}
            </Txt>
            {beside}
          </View>
          <Newer />
          {children}
        </ScrollerProvider>
      </ScrollView>
      {!wide && <Places kind={low ? 'low' : 'narrow'} />}
    </View>
  );
}

/** That a newer version is ready; never in the middle of a render. */
function Newer() {
  const newer = useHasNewer();
  const busy = useIsBusy();
  const [opening, setOpening] = useState(false);
  if (!newer || busy) return null;
  const open = () => {
    setOpening(true);
    openNewer();
  };
  return (
    <Banner
      kind="info"
      testID="newer"
      action={
        <Button
          title={opening ? 'Opening…' : 'Open it'}
          small
          disabled={opening}
          onPress={open}
          testID="open-newer"
        />
      }
    >
      A newer Fresh Reel is ready. What you have made stays as it is.
    </Banner>
  );
}

function Places({ kind }: { kind: 'wide' | 'narrow' | 'low' }) {
  const path = usePathname();
  const wide = kind === 'wide';
  const running = useRenderJobs().filter((j) => j.state === 'running' || j.state === 'waiting').length;
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={[styles.places, wide && styles.placesWide, kind === 'low' && styles.placesLow]}
    >
      {wide && (
        <Txt kind="title" style={styles.brand}>
          Fresh Reel
        </Txt>
      )}
      {PLACES.map((place) => {
        const here = path.startsWith(place.path);
        const name = place.path === '/renders' && running > 0 ? `${place.name} (${running})` : place.name;
        return (
          <LinkPress
            key={place.path}
            href={place.path}
            aria-label={name}
            {...webProps(here ? { 'aria-current': 'page' } : {})}
            testID={`place-${place.path.slice(1)}`}
            style={[
              styles.place,
              wide && styles.placeWide,
              kind === 'low' && styles.placeLow,
              here && styles.here,
            ]}
          >
            <Icon name={place.icon} tint={here ? colour.ink : colour.quiet} size={20} />
            <Txt kind="label" tone={here ? 'ink' : 'quiet'}>
              {name}
            </Txt>
          </LinkPress>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  // In a low window the places stand at the side, where there is room.
  screenLow: { flexDirection: 'row-reverse' },
  scroll: { flex: 1 },
  body: { padding: 16, paddingBottom: 40, gap: 16 },
  bodyBroad: { maxWidth: 2600 },
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
    minHeight: 44,
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
  placesLow: { flexDirection: 'column', borderTopWidth: 0, borderRightWidth: 1, width: 92 },
  brand: { marginRight: 24 },
  // Each takes as much as its word needs, so that six fit on the narrowest phone.
  place: {
    flexGrow: 1,
    flexBasis: 'auto',
    paddingHorizontal: 2,
    minHeight: 58,
    alignItems: 'center',
    justifyContent: 'center',
    gap: 2,
    borderTopWidth: 3,
    borderColor: 'transparent',
  },
  placeWide: {
    flexGrow: 0,
    flexDirection: 'row',
    gap: 8,
    paddingHorizontal: 14,
    borderTopWidth: 0,
    borderBottomWidth: 3,
  },
  placeLow: { minHeight: 48, borderTopWidth: 0, borderLeftWidth: 3 },
  here: { borderColor: colour.accent },
});
