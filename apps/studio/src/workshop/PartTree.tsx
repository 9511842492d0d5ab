import type { LaidPart, Layer, Template } from '@fresh-reel/core';
import { nameOfPart, partAlone } from '@fresh-reel/core/make';
import { createContext, memo, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { askOfReel } from '../preview/previewClient';
import { useAttached, usePreviewSurface } from '../preview/usePreview';
import { IconButton } from '../ui/Button';
import { Icon, type IconName } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { VirtualGrid } from '../ui/VirtualGrid';
import { webProps } from '../ui/web';
import { useWork, useWorkActions } from './work/useWork';

const ICONS: Readonly<Record<Layer['kind'], IconName>> = {
  text: 'type',
  shape: 'square',
  picture: 'image',
  particles: 'sparkles',
  points: 'waypoints',
  beam: 'sun',
  grain: 'grip',
  newer: 'triangle-alert',
  group: 'folder',
};

interface Row {
  readonly layer: Layer;
  readonly depth: number;
}

/** Layers as they are stacked, the topmost first; of a closed group, the group alone. */
function rowsOf(layers: readonly Layer[], closed: ReadonlySet<string>, depth = 0): Row[] {
  return [...layers]
    .reverse()
    .flatMap((layer) => [
      { layer, depth },
      ...(layer.kind === 'group' && !closed.has(layer.id) ? rowsOf(layer.layers, closed, depth + 1) : []),
    ]);
}

/** What small pictures are painted of: renewed once nothing has changed for a while. */
interface Pictured {
  readonly template: Template;
  /** Where each part lies when the template is best seen, and the frame in which that is. */
  readonly laid: ReadonlyMap<string, LaidPart['quad']>;
  readonly still: number;
}
const PicturedContext = createContext<Pictured | undefined>(undefined);

/** Milliseconds without a change before small pictures are made again. */
const REST = 700;

function usePictured(): Pictured | undefined {
  const { bench, graphic, template } = useWork();
  const { scene, time } = useGraphicEditor();
  const [pictured, setPictured] = useState<Pictured>();
  const actual = scene.timeOf(template.still);
  const frame = time.frameOf(actual);
  const first = useRef(true);
  useEffect(() => {
    let current = true;
    const paint = (laid: Pictured['laid']) =>
      current && setPictured({ template, laid, still: Math.round(actual) });
    const timer = setTimeout(
      () =>
        void askOfReel(bench, { about: 'laid', graphic, frame }).then(
          ({ parts }) => paint(new Map(parts.map((p) => [p.layer, p.quad]))),
          // Where it cannot be told, parts show as they lie.
          () => paint(new Map()),
        ),
      first.current ? 0 : REST,
    );
    first.current = false;
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [bench, graphic, template, frame, actual]);
  return pictured;
}

/** The parts of the template, the topmost first, each with its small picture. */
export function PartTree() {
  const { template, bench, chosen } = useWork();
  const pictured = usePictured();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => rowsOf(template.layers, closed), [template.layers, closed]);
  const [turn] = useState(() => (id: string) => {
    setClosed((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  });
  const { hidden, locked } = bench.making;
  return (
    <PicturedContext.Provider value={pictured}>
      <View role="tree" aria-label="Parts, the topmost first" testID="part-tree">
        <VirtualGrid
          items={rows}
          keyOf={({ layer }) => layer.id}
          columns={1}
          gap={2}
          height={52}
          render={({ layer, depth }) => (
            <PartRow
              id={layer.id}
              name={nameOfPart(layer)}
              kind={layer.kind}
              depth={depth}
              closed={closed.has(layer.id)}
              on={chosen.includes(layer.id)}
              hidden={hidden.includes(layer.id)}
              locked={locked.includes(layer.id)}
              onTurn={turn}
            />
          )}
        />
      </View>
    </PicturedContext.Provider>
  );
}

interface RowProps {
  readonly id: string;
  readonly name: string;
  readonly kind: Layer['kind'];
  readonly depth: number;
  readonly closed: boolean;
  readonly on: boolean;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly onTurn: (id: string) => void;
}

/** A row is drawn anew only when something of it has changed: there may be hundreds, and a drag changes one. */
const PartRow = memo(function PartRow({
  id,
  name,
  kind,
  depth,
  closed,
  on,
  hidden,
  locked,
  onTurn,
}: RowProps) {
  const { touch, aside } = useWorkActions();
  return (
    <View
      style={[styles.row, { paddingLeft: Math.min(depth, 6) * 14 }, on && styles.on]}
      role="treeitem"
      aria-selected={on}
      {...webProps({ 'aria-level': depth + 1 })}
    >
      {kind === 'group' ? (
        <IconButton
          icon={closed ? 'chevron-right' : 'chevron-down'}
          label={`${closed ? 'Open' : 'Close'} ${name}`}
          onPress={() => onTurn(id)}
          testID={`turn-${id}`}
        />
      ) : (
        <View style={styles.indent} />
      )}
      <Press
        role="button"
        aria-label={`Choose ${name}`}
        onPress={() => touch(id)}
        style={styles.name}
        testID={`part-${id}`}
      >
        <SmallPicture id={id} />
        <Icon name={ICONS[kind]} size={15} />
        <Txt numberOfLines={1} style={styles.grow} tone={hidden ? 'quiet' : 'ink'}>
          {name}
        </Txt>
      </Press>
      <IconButton
        icon={hidden ? 'eye-off' : 'eye'}
        label={hidden ? `Show ${name}` : `Put ${name} out of sight`}
        on={hidden}
        onPress={() => aside([id], 'hidden', !hidden)}
        testID={`hide-${id}`}
      />
      <IconButton
        icon="lock"
        label={locked ? `Unlock ${name}` : `Lock ${name}`}
        on={locked}
        colour={locked ? colour.accent : colour.edge}
        onPress={() => aside([id], 'locked', !locked)}
        testID={`lock-${id}`}
      />
    </View>
  );
});

/** A part alone, as it stands when the template is best seen; painted while its row is near the screen. */
function SmallPicture({ id }: { id: string }) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={styles.picture}>
      {near && <Painted id={id} />}
    </View>
  );
}

const Painted = memo(function Painted({ id }: { id: string }) {
  const pictured = useContext(PicturedContext);
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  useEffect(() => {
    if (!pictured) return;
    surface.show(partAlone(pictured.template, id, pictured.laid.get(id)));
    surface.seek(pictured.still);
  }, [surface, pictured, id]);
  return <View ref={holder} style={StyleSheet.absoluteFill} />;
});

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', borderRadius: CORNER, minHeight: 50 },
  on: { backgroundColor: colour.accentTint },
  indent: { width: 24 },
  name: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44, borderRadius: 8 },
  grow: { flex: 1 },
  picture: { width: 64, height: 36, borderRadius: 5, overflow: 'hidden', backgroundColor: colour.edge },
});
