import { everyLayer, type Layer, newReel, type Template } from '@fresh-reel/core';
import { nameOfPart } from '@fresh-reel/core/make';
import { memo, useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../editor/session/useReelEditor';
import { useAttached, usePreviewSurface } from '../preview/usePreview';
import { IconButton } from '../ui/Button';
import { Icon, type IconName } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { CHEQUERED, CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { VirtualGrid } from '../ui/VirtualGrid';
import { webProps } from '../ui/web';
import { useWork } from './useWork';

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

/** The parts of the template, the topmost first, each with its small picture. */
export function PartTree() {
  const { template } = useWork();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => rowsOf(template.layers, closed), [template.layers, closed]);
  const turn = (id: string) =>
    setClosed((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <View role="tree" aria-label="Parts, the topmost first" testID="part-tree">
      <VirtualGrid
        items={rows}
        keyOf={({ layer }) => layer.id}
        columns={1}
        gap={2}
        height={52}
        render={({ layer, depth }) => (
          <PartRow layer={layer} depth={depth} closed={closed.has(layer.id)} onTurn={turn} />
        )}
      />
    </View>
  );
}

interface RowProps extends Row {
  readonly closed: boolean;
  readonly onTurn: (id: string) => void;
}

function PartRow({ layer, depth, closed, onTurn }: RowProps) {
  const { bench, chosen, touch, aside } = useWork();
  const { id } = layer;
  const name = nameOfPart(layer);
  const on = chosen.includes(id);
  const hidden = bench.making.hidden.includes(id);
  const locked = bench.making.locked.includes(id);
  return (
    <View
      style={[styles.row, { paddingLeft: Math.min(depth, 6) * 14 }, on && styles.on]}
      role="treeitem"
      aria-selected={on}
      {...webProps({ 'aria-level': depth + 1 })}
    >
      {layer.kind === 'group' ? (
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
        <Icon name={ICONS[layer.kind]} size={15} />
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
}

/** A part alone, as it stands when the template is best seen; painted while its row is near the screen. */
function SmallPicture({ id }: { id: string }) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={[styles.picture, CHEQUERED]}>
      {near && <Painted id={id} />}
    </View>
  );
}

/** Milliseconds without a change before small pictures are made again. */
const REST = 700;

const Painted = memo(function Painted({ id }: { id: string }) {
  const { template } = useWork();
  const { scene } = useGraphicEditor();
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const still = Math.round(scene.timeOf(template.still));
  const [first, setFirst] = useState(true);
  useEffect(() => {
    const timer = setTimeout(
      () => {
        surface.show(
          newReel(alone(template, id), { id: `part-${id}`, name: id, now: '', shape: template.shape }),
        );
        surface.seek(still);
        setFirst(false);
      },
      first ? 0 : REST,
    );
    return () => clearTimeout(timer);
  }, [surface, template, id, still, first]);
  return <View ref={holder} style={StyleSheet.absoluteFill} />;
});

/** A template of which one part alone is seen, with all that is in it and the groups it stands in. */
function alone(template: Template, id: string): Template {
  const seen = (layers: readonly Layer[]): Layer[] =>
    layers.map((layer) => {
      if (layer.id === id) return layer;
      if (layer.kind === 'group' && [...everyLayer(layer.layers)].some((l) => l.id === id))
        return { ...layer, layers: seen(layer.layers) };
      return { ...layer, opacity: 0 };
    });
  return { ...template, layers: seen(template.layers) };
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', borderRadius: CORNER, minHeight: 50 },
  on: { backgroundColor: colour.accentTint },
  indent: { width: 24 },
  name: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44, borderRadius: 8 },
  grow: { flex: 1 },
  picture: { width: 64, height: 36, borderRadius: 5, overflow: 'hidden' },
});
