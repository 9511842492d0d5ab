import type { LaidPart, Layer } from '@fresh-reel/core';
import { nameOfPart, partAlone } from '@fresh-reel/core/make';
import { createContext, memo, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../editor/session/useReelEditor';
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

/** Where each part lies when the template is best seen, worked out anew once nothing has changed for a while. */
const LaidContext = createContext<ReadonlyMap<string, LaidPart['quad']>>(new Map());

/** Milliseconds without a change before small pictures are made again. */
const REST = 700;

function useLaid(): ReadonlyMap<string, LaidPart['quad']> {
  const { bench, graphic, template } = useWork();
  const { scene, time } = useGraphicEditor();
  const [laid, setLaid] = useState<ReadonlyMap<string, LaidPart['quad']>>(new Map());
  const frame = time.frameOf(scene.timeOf(template.still));
  const first = useRef(true);
  useEffect(() => {
    let current = true;
    const timer = setTimeout(
      () =>
        void askOfReel(bench, { about: 'laid', graphic, frame }).then(
          ({ parts }) => current && setLaid(new Map(parts.map((p) => [p.layer, p.quad]))),
          // Where it cannot be told, parts show as they lie.
          () => undefined,
        ),
      first.current ? 0 : REST,
    );
    first.current = false;
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [bench, graphic, frame]);
  return laid;
}

/** The parts of the template, the topmost first, each with its small picture. */
export function PartTree() {
  const { template } = useWork();
  const laid = useLaid();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => rowsOf(template.layers, closed), [template.layers, closed]);
  const turn = (id: string) =>
    setClosed((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <LaidContext.Provider value={laid}>
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
    </LaidContext.Provider>
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
    <View ref={ref} style={styles.picture}>
      {near && <Painted id={id} />}
    </View>
  );
}

const Painted = memo(function Painted({ id }: { id: string }) {
  const { template } = useWork();
  const { scene } = useGraphicEditor();
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const laid = useContext(LaidContext);
  const still = Math.round(scene.timeOf(template.still));
  const [first, setFirst] = useState(true);
  useEffect(() => {
    const timer = setTimeout(
      () => {
        surface.show(partAlone(template, id, laid.get(id)));
        surface.seek(still);
        setFirst(false);
      },
      first ? 0 : REST,
    );
    return () => clearTimeout(timer);
  }, [surface, template, id, laid, still, first]);
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
