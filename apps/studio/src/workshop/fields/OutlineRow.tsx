import { drawnOutline, partOf } from '@fresh-reel/core/make';
import { DrawnPathField } from '../../editor/adjust/PathField';
import { Txt } from '../../ui/Txt';
import { useOutline } from '../useOutline';
import { useWork } from '../useWork';

/** Draws the outline of a part on the picture, where it is a path of one stroke. */
export function OutlineRow({ part }: { part: string }) {
  const { template } = useWork();
  const drawn = useOutline(part);
  if (!drawnOutline(partOf(template, part)))
    return (
      <Txt kind="small" tone="quiet">
        A path of several strokes, or one that comes from elsewhere, is not drawn by hand.
      </Txt>
    );
  return <DrawnPathField target={{ kind: 'outline', layer: part }} drawn={drawn} testID="outline" />;
}
