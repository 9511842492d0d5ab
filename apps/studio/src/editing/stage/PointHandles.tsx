import { isKeyed, putKey, setControl } from '@fresh-reel/core';
import { useDesk, useLocalTime } from '../session/desk';
import { useGraphicEditor } from '../session/useReelEditor';
import { PointHandle } from './PointHandle';

/** Handles of the point controls on the picture, each with its control's name: drag, or nudge with the arrow keys. */
export function PointHandles({ width, height }: { width: number; height: number }) {
  const { graphic, scene } = useGraphicEditor();
  const time = useLocalTime();
  return (
    <>
      {graphic.template.controls.map((control) =>
        control.kind === 'point' ? (
          <Handle
            key={control.id}
            id={control.id}
            name={control.name}
            value={scene.localControl(control.id, time) as [number, number]}
            width={width}
            height={height}
          />
        ) : null,
      )}
    </>
  );
}

interface HandleProps {
  readonly id: string;
  readonly name: string;
  readonly value: readonly [number, number];
  readonly width: number;
  readonly height: number;
}

const round = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 10000) / 10000;

function Handle({ id, ...shown }: HandleProps) {
  const { edit, graphic, settle, scene, time } = useGraphicEditor();
  const { surface } = useDesk();
  const put = (x: number, y: number) =>
    edit((reel) => {
      const control = scene.controls[id]!;
      const next: [number, number] = [round(x), round(y)];
      const local = time.localAt(surface.position);
      return setControl(
        reel,
        graphic.id,
        id,
        isKeyed(control) ? putKey(control, scene.clock, local, next) : next,
      );
    }, `point-${id}`);
  return <PointHandle id={id} {...shown} frame={scene.frame} onMove={put} onSettle={settle} />;
}
