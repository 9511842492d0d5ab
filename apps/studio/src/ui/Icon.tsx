import Activity from 'lucide-react-native/icons/activity';
import Aperture from 'lucide-react-native/icons/aperture';
import Archive from 'lucide-react-native/icons/archive';
import ArrowDown from 'lucide-react-native/icons/arrow-down';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import ArrowRight from 'lucide-react-native/icons/arrow-right';
import ArrowUp from 'lucide-react-native/icons/arrow-up';
import Camera from 'lucide-react-native/icons/camera';
import Check from 'lucide-react-native/icons/check';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import Circle from 'lucide-react-native/icons/circle';
import CircleCheck from 'lucide-react-native/icons/circle-check';
import CircleMinus from 'lucide-react-native/icons/circle-minus';
import CirclePause from 'lucide-react-native/icons/circle-pause';
import CirclePlus from 'lucide-react-native/icons/circle-plus';
import Copy from 'lucide-react-native/icons/copy';
import Download from 'lucide-react-native/icons/download';
import Eye from 'lucide-react-native/icons/eye';
import EyeOff from 'lucide-react-native/icons/eye-off';
import Feather from 'lucide-react-native/icons/feather';
import FileText from 'lucide-react-native/icons/file-text';
import Film from 'lucide-react-native/icons/film';
import Flag from 'lucide-react-native/icons/flag';
import FoldHorizontal from 'lucide-react-native/icons/fold-horizontal';
import Folder from 'lucide-react-native/icons/folder';
import Grip from 'lucide-react-native/icons/grip';
import Hammer from 'lucide-react-native/icons/hammer';
import Image from 'lucide-react-native/icons/image';
import Info from 'lucide-react-native/icons/info';
import Layers from 'lucide-react-native/icons/layers';
import LayoutGrid from 'lucide-react-native/icons/layout-grid';
import List from 'lucide-react-native/icons/list';
import Lock from 'lucide-react-native/icons/lock';
import MoveHorizontal from 'lucide-react-native/icons/move-horizontal';
import Music from 'lucide-react-native/icons/music';
import OctagonAlert from 'lucide-react-native/icons/octagon-alert';
import Pause from 'lucide-react-native/icons/pause';
import PenLine from 'lucide-react-native/icons/pen-line';
import Pencil from 'lucide-react-native/icons/pencil';
import Play from 'lucide-react-native/icons/play';
import Plus from 'lucide-react-native/icons/plus';
import Redo2 from 'lucide-react-native/icons/redo-2';
import Repeat from 'lucide-react-native/icons/repeat';
import RotateCcw from 'lucide-react-native/icons/rotate-ccw';
import Rows3 from 'lucide-react-native/icons/rows-3';
import Save from 'lucide-react-native/icons/save';
import Scan from 'lucide-react-native/icons/scan';
import Scissors from 'lucide-react-native/icons/scissors';
import Search from 'lucide-react-native/icons/search';
import Shuffle from 'lucide-react-native/icons/shuffle';
import SkipBack from 'lucide-react-native/icons/skip-back';
import SkipForward from 'lucide-react-native/icons/skip-forward';
import SlidersHorizontal from 'lucide-react-native/icons/sliders-horizontal';
import Snowflake from 'lucide-react-native/icons/snowflake';
import Sparkles from 'lucide-react-native/icons/sparkles';
import Spline from 'lucide-react-native/icons/spline';
import Square from 'lucide-react-native/icons/square';
import Star from 'lucide-react-native/icons/star';
import Sun from 'lucide-react-native/icons/sun';
import Trash from 'lucide-react-native/icons/trash';
import TriangleAlert from 'lucide-react-native/icons/triangle-alert';
import Type from 'lucide-react-native/icons/type';
import Undo2 from 'lucide-react-native/icons/undo-2';
import Upload from 'lucide-react-native/icons/upload';
import Volume2 from 'lucide-react-native/icons/volume-2';
import VolumeX from 'lucide-react-native/icons/volume-x';
import Waypoints from 'lucide-react-native/icons/waypoints';
import X from 'lucide-react-native/icons/x';
import ZoomIn from 'lucide-react-native/icons/zoom-in';
import ZoomOut from 'lucide-react-native/icons/zoom-out';
import { memo } from 'react';
import { View } from 'react-native';
import { colour } from './theme';

/** The pictures of the interface, each drawn as lines. Only these are part of the app. */
const ICONS = {
  activity: Activity,
  aperture: Aperture,
  archive: Archive,
  'arrow-down': ArrowDown,
  'arrow-left': ArrowLeft,
  'arrow-right': ArrowRight,
  'arrow-up': ArrowUp,
  camera: Camera,
  check: Check,
  'chevron-down': ChevronDown,
  'chevron-left': ChevronLeft,
  'chevron-right': ChevronRight,
  circle: Circle,
  'circle-check': CircleCheck,
  'circle-minus': CircleMinus,
  'circle-pause': CirclePause,
  'circle-plus': CirclePlus,
  copy: Copy,
  download: Download,
  eye: Eye,
  'eye-off': EyeOff,
  feather: Feather,
  'file-text': FileText,
  film: Film,
  flag: Flag,
  'fold-horizontal': FoldHorizontal,
  folder: Folder,
  'move-horizontal': MoveHorizontal,
  snowflake: Snowflake,
  image: Image,
  info: Info,
  layers: Layers,
  'layout-grid': LayoutGrid,
  list: List,
  music: Music,
  'octagon-alert': OctagonAlert,
  pause: Pause,
  'pen-line': PenLine,
  pencil: Pencil,
  play: Play,
  plus: Plus,
  'redo-2': Redo2,
  repeat: Repeat,
  'rotate-ccw': RotateCcw,
  save: Save,
  scan: Scan,
  search: Search,
  shuffle: Shuffle,
  'skip-back': SkipBack,
  'skip-forward': SkipForward,
  'sliders-horizontal': SlidersHorizontal,
  spline: Spline,
  trash: Trash,
  'triangle-alert': TriangleAlert,
  type: Type,
  'undo-2': Undo2,
  upload: Upload,
  'volume-2': Volume2,
  'volume-x': VolumeX,
  lock: Lock,
  scissors: Scissors,
  square: Square,
  star: Star,
  grip: Grip,
  hammer: Hammer,
  sparkles: Sparkles,
  sun: Sun,
  waypoints: Waypoints,
  'zoom-in': ZoomIn,
  'zoom-out': ZoomOut,
  rows: Rows3,
  x: X,
} as const;

export type IconName = keyof typeof ICONS;

interface Props {
  readonly name: IconName;
  readonly tint?: string;
  readonly size?: number;
}

/** An icon, which only illustrates: words beside it, or the label of its button, say the same. */
export const Icon = memo(function Icon({ name, tint = colour.quiet, size = 18 }: Props) {
  const Drawn = ICONS[name];
  return (
    <View aria-hidden>
      <Drawn size={size} color={tint} strokeWidth={2} />
    </View>
  );
});
