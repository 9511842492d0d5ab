import type { FileFacts } from '../../edit/newItems';
import type { MediaFacts } from '../../layers/kind';
import type { SoundFacts } from '../../sound/play';

/** The id of a file, as files have them: by a digit. */
const hash = (digit: string) => `sha256:${digit.repeat(64)}`;

/** A file as an editor may have one, and as it goes into a reel. */
interface OddFile {
  readonly file: FileFacts;
  readonly facts: MediaFacts | undefined;
}

const clip = (digit: string, rate: number, duration: number, width: number, height: number): OddFile => ({
  file: { kind: 'clip', media: hash(digit), name: `${digit}.mp4`, rate, duration, width, height },
  facts: { width, height, rate, duration, sound: duration !== 1 / 30 },
});

/** Files of odd kinds: slow and fast, very short, upright, without a known length or rate, and one that is missing. */
export const ODD_FILES: readonly OddFile[] = [
  clip('1', 25, 12.04, 1920, 1080),
  clip('2', 12.5, 7.3, 1280, 720),
  clip('3', 24000 / 1001, 3.003, 4096, 1716),
  clip('4', 119.88, 0.9, 1080, 1920),
  clip('5', 30, 1 / 30, 64, 64),
  {
    file: { kind: 'clip', media: hash('6'), duration: 5 },
    facts: { width: 640, height: 480, sound: true },
  },
  {
    file: { kind: 'clip', media: hash('7'), name: 'missing.mov', duration: 4, rate: 25 },
    facts: undefined,
  },
  { file: { kind: 'picture', media: hash('8') }, facts: { width: 3000, height: 2000 } },
  { file: { kind: 'picture', media: hash('9') }, facts: { width: 3000, height: 2 } },
  { file: { kind: 'picture', media: hash('a') }, facts: { width: 1, height: 1 } },
  { file: { kind: 'sound', media: hash('b'), name: 'music.wav', duration: 61.7 }, facts: undefined },
  { file: { kind: 'sound', media: hash('c'), duration: 0.02 }, facts: undefined },
];

/** What is known of the pictures and clips among them. */
export const oddFacts = (media: string): MediaFacts | undefined =>
  ODD_FILES.find(({ file }) => file.media === media)?.facts;

/** One of the pictures, and one of the sounds. */
export const PHOTO = hash('8');
export const MUSIC = hash('b');

/** What is known of the sound of a file that has one. */
export function oddSound(media: string): SoundFacts | undefined {
  const found = ODD_FILES.find(({ file }) => file.media === media);
  const { duration } = found?.file ?? {};
  const sounds = found?.file.kind === 'sound' || found?.facts?.sound;
  return sounds && duration !== undefined ? { duration } : undefined;
}
