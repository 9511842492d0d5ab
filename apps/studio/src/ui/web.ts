import type { CSSProperties, RefObject } from 'react';
import type { TextStyle, ViewStyle } from 'react-native';

/**
 * The app runs on the web, whose views know more than React Native's types say. Here, and nowhere else, the two are
 * brought together.
 */

/** A key that was pressed. */
export interface KeyPress {
  readonly key: string;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
  preventDefault(): void;
  stopPropagation(): void;
}

/** A pointer that came down, moved or went. */
export interface PointerPress {
  readonly clientX: number;
  readonly clientY: number;
  readonly pointerId: number;
  readonly pointerType: string;
  readonly button: number;
  readonly altKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
  readonly currentTarget: { setPointerCapture?(id: number): void };
  preventDefault(): void;
  stopPropagation(): void;
}

type On<E> = (event: E) => void;

/** What a view does with pointers. */
export interface PointerHandlers {
  readonly onPointerDown: On<PointerPress>;
  readonly onPointerMove: On<PointerPress>;
  readonly onPointerUp: On<PointerPress>;
  readonly onPointerCancel: On<PointerPress>;
}

/** What views of the web take beyond those of React Native. */
interface WebProps extends Partial<PointerHandlers> {
  readonly onKeyDown?: On<KeyPress>;
  readonly onFocus?: () => void;
  readonly onBlur?: () => void;
  readonly onPointerEnter?: On<PointerPress>;
  readonly onPointerLeave?: On<PointerPress>;
  readonly onPointerMoveCapture?: On<PointerPress>;
  readonly onMouseDown?: On<PointerPress>;
  readonly onClick?: On<PointerPress>;
  /** Of an SVG shape, which has no `testID`. */
  readonly 'data-testid'?: string;
  readonly pointerEvents?: 'stroke';
  readonly id?: string;
  readonly tabIndex?: 0 | -1;
  readonly role?: string;
  readonly 'aria-description'?: string;
  readonly 'aria-level'?: number;
  readonly 'aria-current'?: 'page';
}

/** Properties of the web for a view: spread them on it. */
export const webProps = (props: WebProps): object => props;

type Loose = 'cursor' | 'position' | 'outlineStyle' | 'width';
type WebStyle = Omit<CSSProperties, Exclude<keyof TextStyle, Loose>> & Omit<TextStyle, Loose>;

/** A style with what CSS has beyond React Native. */
export const webStyle = (style: WebStyle): ViewStyle => style as ViewStyle;

/** The element that a view is on the page. */
export const elementOf = (ref: RefObject<unknown>): HTMLElement | null => ref.current as HTMLElement | null;

/**
 * A handler of keys: what it takes goes no further, and the page does not scroll by it.
 * @param take does what the key asks for; false when it asks for nothing here
 */
export function onKeys(take: (key: string, shift: boolean, alt: boolean) => boolean): {
  onKeyDown: On<KeyPress>;
} {
  return {
    onKeyDown: (event) => {
      if (!take(event.key, event.shiftKey, event.altKey)) return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}

/** Which way an arrow key points: right and down are positive. Nothing of other keys. */
export function arrowOf(key: string): readonly [x: number, y: number] | undefined {
  const ways: Record<string, readonly [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  return ways[key];
}
