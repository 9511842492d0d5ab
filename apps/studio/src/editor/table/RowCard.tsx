import { checkText, frameShape, type ReelCheck } from '@fresh-reel/core';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { checkReel } from '../../preview/previewClient';
import { useAttached, usePreviewSurface } from '../../preview/usePreview';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { useNearScreen } from '../../ui/useNearScreen';
import type { Row } from './useTable';

interface Props {
  readonly row: Row;
  /** The graphic it fills, and the frame that shows it best. */
  readonly graphic: string | undefined;
  readonly still: number;
  readonly chosen: boolean;
  readonly onChoose: (chosen: boolean) => void;
}

/** A row as it will be: a small picture, what it says, and what is wrong with it. */
export function RowCard({ row, graphic, still, chosen, onChoose }: Props) {
  const { ref, near } = useNearScreen();
  const found = useRowChecks(row, near);
  const faults = [
    ...row.faults,
    ...found.flatMap((check) => {
      // A file that is not there has been told by its name.
      if (check.kind === 'missing-picture') return [];
      const { kind, text } = checkText(check);
      return kind === 'watch' && (check.item === graphic || graphic === undefined) ? [text] : [];
    }),
  ];
  return (
    <Press
      role="checkbox"
      aria-checked={chosen}
      aria-label={`Row ${row.number}: ${row.words}`}
      onPress={() => onChoose(!chosen)}
      testID={`row-${row.number}`}
      style={[styles.card, chosen && styles.chosen]}
    >
      <View ref={ref} style={[styles.picture, styles[frameShape(row.reel.frame)]]}>
        {near && <Still row={row} still={still} />}
      </View>
      <Txt kind="small" numberOfLines={2}>
        {`${row.number}. ${row.words || 'nothing'}`}
      </Txt>
      {faults.map((fault) => (
        <Txt key={fault} kind="small" tone="amber" testID={`row-fault-${row.number}`}>
          {fault}
        </Txt>
      ))}
    </Press>
  );
}

function Still({ row, still }: { row: Row; still: number }) {
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  useEffect(() => {
    surface.show(row.reel);
    surface.seek(still);
  }, [surface, row.reel, still]);
  return <View ref={holder} style={StyleSheet.absoluteFill} />;
}

/** What would be wrong with the row's render, looked at while it is near the screen. */
function useRowChecks({ reel }: Row, near: boolean): readonly ReelCheck[] {
  const [checked, setChecked] = useState<{ of: object; checks: readonly ReelCheck[] }>();
  useEffect(() => {
    if (!near) return;
    let current = true;
    checkReel(reel).then(
      (checks) => current && setChecked({ of: reel, checks }),
      // What cannot be looked at is told by its render.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [reel, near]);
  return checked?.of === reel ? checked.checks : [];
}

const styles = StyleSheet.create({
  card: { gap: 4, padding: 4, borderWidth: 2, borderColor: colour.hairline, borderRadius: CORNER },
  chosen: { borderColor: colour.accent, backgroundColor: colour.accentTint },
  picture: { borderRadius: CORNER - 4, overflow: 'hidden', backgroundColor: colour.surround },
  wide: { aspectRatio: 16 / 9 },
  square: { aspectRatio: 1 },
  tall: { aspectRatio: 9 / 16 },
});
