import type { Region } from '@fresh-reel/core';
import { useDesk } from '../session/desk';
import { inParent, usePlacing } from '../session/usePlacing';
import { BoxHandles } from './BoxHandles';

interface Props {
  readonly region: Region;
  /** Every region of the frame, for snapping. */
  readonly regions: readonly Region[];
  /** Pixels of the page a frame unit takes. */
  readonly k: number;
  readonly frame: { readonly width: number; readonly height: number };
}

const round = (v: number) => Math.round(v * 100) / 100;

/** The words that are chosen, on the picture. Touch again to type. */
export function TextHandles({ region, regions, k, frame }: Props) {
  const { chooseText } = useDesk();
  const { read, write, settle } = usePlacing(region.layer);
  return (
    <BoxHandles
      quad={region.quad}
      others={regions.filter((r) => r.layer !== region.layer).map((r) => r.quad)}
      k={k}
      frame={frame}
      lying={() => ({
        move: read<[number, number]>('placing.move') ?? [0, 0],
        scale: read<number>('placing.scale') ?? 1,
        turn: read<number>('placing.turn') ?? 0,
      })}
      onMove={(by, { move }) => {
        const [x, y] = inParent(region.unit, by);
        write('placing.move', [round(move[0] + x), round(move[1] + y)], 'placed');
      }}
      onScale={(scale) => write('placing.scale', scale, 'placed')}
      onTurn={(turn) => write('placing.turn', turn, 'placed')}
      onSettle={settle}
      onTap={() => chooseText(region.layer, true)}
      what="Chosen words"
      hint="drag or use the arrow keys to move, Enter to type"
      kind="text"
      name={region.layer}
    />
  );
}
