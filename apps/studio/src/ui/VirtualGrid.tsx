import { useVirtualizer } from '@tanstack/react-virtual';
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { StyleSheet, View } from 'react-native';
import { useFastScrolling } from './useFastScrolling';
import { elementOf } from './web';

/** The view that scrolls, in which long lists stand. */
const ScrollerContext = createContext<() => HTMLElement | null>(() => null);
export const ScrollerProvider = ScrollerContext.Provider;

/** Whether a long list goes past too fast to be looked at: what is dear to show waits for it. */
const PassingContext = createContext(false);
export const usePassing = (): boolean => useContext(PassingContext);

interface Props<T> {
  readonly items: readonly T[];
  readonly keyOf: (item: T) => string;
  readonly render: (item: T) => ReactNode;
  readonly columns: number;
  /** Pixels between columns and rows. */
  readonly gap: number;
  /** Height of a row before it is measured, in pixels. */
  readonly height: number;
}

/** Up to so many things are all there: finding in the page and screen readers come to each. */
const ALL = 48;

/** Things in rows and columns; of a long list, only those near what is seen are there. */
export function VirtualGrid<T>(props: Props<T>) {
  const { items, keyOf, render, columns, gap } = props;
  if (items.length > ALL) return <Rows {...props} />;
  return (
    <View style={[styles.grid, { gap }]}>
      {items.map((item) => (
        <View key={keyOf(item)} style={cell(columns, gap)}>
          {render(item)}
        </View>
      ))}
    </View>
  );
}

/** The list, once what scrolls around it is known; until then, its height alone. */
function Rows<T>(props: Props<T>) {
  const scroller = useContext(ScrollerContext);
  // What is around comes to be with the list, and is known once all of it is there.
  const [around, setAround] = useState<HTMLElement | null>(null);
  useEffect(() => setAround(scroller()), [scroller]);
  if (around) return <RowsIn {...props} around={around} />;
  const rows = Math.ceil(props.items.length / props.columns);
  return <View style={{ height: rows * (props.height + props.gap) - props.gap }} />;
}

function RowsIn<T>({
  items,
  keyOf,
  render,
  columns,
  gap,
  height,
  around,
}: Props<T> & { around: HTMLElement }) {
  const list = useRef<View>(null);
  const [margin, setMargin] = useState(0);
  useLayoutEffect(() => {
    const element = elementOf(list);
    if (!element) return;
    const measure = () =>
      setMargin(element.getBoundingClientRect().top - around.getBoundingClientRect().top + around.scrollTop);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(around);
    return () => observer.disconnect();
  }, [around]);
  const rows = useVirtualizer({
    count: Math.ceil(items.length / columns),
    getScrollElement: () => around,
    // Otherwise the list begins at its top, and takes what scrolls there.
    initialOffset: () => around.scrollTop,
    // The scroll view's own way glides there; a list that puts its rows right must not be seen to.
    scrollToFn: (offset, { adjustments = 0 }) => {
      around.scrollTop = offset + adjustments;
    },
    estimateSize: () => height,
    gap,
    overscan: 3,
    scrollMargin: margin,
  });
  const passing = useFastScrolling(around);
  return (
    <PassingContext value={passing}>
      <View ref={list} style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((row) => (
          <View
            key={row.index}
            ref={(view) => rows.measureElement(view as unknown as HTMLElement | null)}
            {...{ dataSet: { index: row.index } }}
            style={[styles.row, { gap, transform: [{ translateY: row.start - margin }] }]}
          >
            {items.slice(row.index * columns, (row.index + 1) * columns).map((item) => (
              <View key={keyOf(item)} style={cell(columns, gap)}>
                {render(item)}
              </View>
            ))}
          </View>
        ))}
      </View>
    </PassingContext>
  );
}

const cell = (columns: number, gap: number) =>
  columns === 1
    ? styles.whole
    : // A hair less, so that rounding never breaks a row.
      ({ width: `calc(${100 / columns}% - ${gap - gap / columns + 0.1}px)` } as object);

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap' },
  row: { flexDirection: 'row', position: 'absolute', left: 0, right: 0, top: 0 },
  whole: { width: '100%' },
});
