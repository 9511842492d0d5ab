import { createElement, useEffect, useRef } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { usePictureUrl } from '../media/usePictureUrl';
import { usePreferences } from '../storage/queries';
import { CHEQUERED } from '../ui/theme';
import type { PreviewSurface } from './previewClient';

const footage = (clip: string) => `/templates/shared/${clip}`;

interface Props {
  /** What it lies behind: footage goes along with it. Without one, footage stands still. */
  readonly surface?: PreviewSurface;
}

/** What lies behind a transparent title while it is looked at, as the user chose. It is never rendered. */
export function Ground({ surface }: Props) {
  const { ground } = usePreferences();
  const url = usePictureUrl(ground.kind === 'picture' ? ground.media : undefined);
  if (ground.kind === 'plain') return <View style={[styles.fill, { backgroundColor: ground.colour }]} />;
  if (ground.kind === 'footage') {
    if (surface)
      return <Footage key={ground.clip} surface={ground.plays ? surface : undefined} clip={ground.clip} />;
    return <Still uri={`${footage(ground.clip)}.thumb.webp`} />;
  }
  if (ground.kind === 'picture' && url) return <Still uri={url} />;
  return <View style={[styles.fill, CHEQUERED]} />;
}

const Still = ({ uri }: { uri: string }) => (
  <Image source={{ uri }} style={styles.fill} resizeMode="cover" alt="" aria-hidden />
);

/** Of a clip: where its small picture was taken. */
const SHOWN = 0.4;

/** A clip that plays, stands and is sought as the picture before it; without one, it stands as on its small picture. */
function Footage({ surface, clip }: { surface: PreviewSurface | undefined; clip: string }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const element = video.current;
    if (!element || surface) return;
    // The small picture stands for the clip for a moment only: it would be kept, enlarged, until the clip is sought.
    const shows = () => {
      element.currentTime = element.duration * SHOWN;
    };
    if (element.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA) shows();
    element.addEventListener('loadeddata', shows);
    return () => element.removeEventListener('loadeddata', shows);
  }, [surface]);
  useEffect(() => {
    const element = video.current;
    if (!element || !surface) return;
    let [was, at] = [false, -1];
    const follow = () => {
      const { playing, frame } = surface.snapshot();
      const second = frame ? surface.secondOf(frame.number) : 0;
      const turned = playing && second < at;
      if (playing !== was || turned || (!playing && second !== at)) {
        // A loop begins anew together.
        if (element.duration > 0 && (!playing || turned)) element.currentTime = second % element.duration;
        if (playing && !was) void element.play().catch(() => undefined);
        if (!playing) element.pause();
      }
      [was, at] = [playing, second];
    };
    follow();
    element.addEventListener('loadedmetadata', follow);
    const unsubscribe = surface.subscribe(follow);
    return () => {
      unsubscribe();
      element.removeEventListener('loadedmetadata', follow);
    };
  }, [surface]);
  return createElement('video', {
    ref: video,
    src: `${footage(clip)}.mp4`,
    poster: `${footage(clip)}.thumb.webp`,
    preload: 'auto',
    muted: true,
    loop: true,
    playsInline: true,
    'aria-hidden': true,
    tabIndex: -1,
    style: { position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'cover' },
  });
}

const styles = StyleSheet.create({
  fill: { position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, width: '100%', height: '100%' },
});
