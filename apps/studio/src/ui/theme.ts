import { useWindowDimensions } from 'react-native';
import { webStyle } from './web';

/** Print-shop colours: paper, ink, one strong accent. Pairs used for text meet WCAG 2.2 AA (see the theme's test). */
export const colour = {
  paper: '#FBF8F2',
  card: '#FFFFFF',
  ink: '#16202B',
  quiet: '#55606C',
  hairline: '#E4DED3',
  /** Edges of controls need 3:1 against paper. */
  edge: '#8A857B',
  accent: '#C8431C',
  accentTint: '#FBE7DF',
  accentDeep: '#9E3110',
  blue: '#1F6F8B',
  blueTint: '#E3EFF3',
  leaf: '#2E7D4F',
  leafTint: '#E4F1E8',
  sand: '#E9DFC9',
  amber: '#8A5A00',
  amberTint: '#FBF0D9',
  red: '#B3261E',
  redTint: '#FBE6E4',
  black: '#000000',
  /** Ink that lets what lies below show through: under white words, and over what is missing. */
  shade: 'rgba(22,32,43,0.8)',
  veil: 'rgba(22,32,43,0.55)',
  /** Lines that show where something snaps to. */
  guide: '#39C2D7',
  surround: '#2B2B2B',
  onSurround: '#F4F4F2',
} as const;

export const family = {
  heading: 'Bricolage-700',
  text: 'Figtree-400',
  medium: 'Figtree-600',
  bold: 'Figtree-700',
} as const;

/** Files of the interface's fonts, served with the app. */
const FONT_FILES = {
  'Bricolage-700': '/fonts/BricolageGrotesque_700Bold.ttf',
  'Figtree-400': '/fonts/Figtree_400Regular.ttf',
  'Figtree-600': '/fonts/Figtree_600SemiBold.ttf',
  'Figtree-700': '/fonts/Figtree_700Bold.ttf',
} as const;

/** The style sheet that names them. Words show in the system's font until they are here. */
export const FONT_FACES = Object.entries(FONT_FILES)
  .map(([name, file]) => `@font-face{font-family:"${name}";src:url("${file}");font-display:swap}`)
  .join('');

/** What lies under see-through pictures. */
export const CHEQUERED = webStyle({
  backgroundColor: '#F1EDE4',
  backgroundImage: 'repeating-conic-gradient(#F6F3EC 0% 25%, #EAE5DA 0% 50%)',
  backgroundSize: '14px 14px',
});

export const size = { small: 13, body: 15, lead: 17, title: 22, display: 30 } as const;
export const TOUCH = 44;
export const CORNER = 10;
/** From here on the screen counts as wide. */
export const WIDE = 900;

/** Windows lower than this have no room for one thing above the other: a phone on its side. */
export const LOW = 520;

/** Whether the window is a low one, wider than it is high. */
export function useIsLow(): boolean {
  const { width, height } = useWindowDimensions();
  return height < LOW && width > height;
}

export function useIsWide(): boolean {
  return useWindowDimensions().width >= WIDE;
}
