import { DrawnPathField } from '../../editing/controls/PathField';
import { Txt } from '../../ui/Txt';
import { useOutline } from '../work/useOutline';

/** Draws the outline of a part on the picture, where it is a path of one stroke. */
export function OutlineRow({ part }: { part: string }) {
  const drawn = useOutline(part);
  if (!drawn)
    return (
      <Txt kind="small" tone="quiet">
        A path of several strokes, or one that comes from elsewhere, is not drawn by hand.
      </Txt>
    );
  return <DrawnPathField target={{ kind: 'outline', layer: part }} drawn={drawn} testID="outline" />;
}
