import { BLEND_MODES } from '@fresh-reel/core';
import { Choice } from '../../ui/Choice';

type Blend = (typeof BLEND_MODES)[number];

const BLENDS = BLEND_MODES.map((id) => ({
  id,
  name: (id[0]!.toUpperCase() + id.slice(1)).replace('-', ' '),
}));

interface Props {
  readonly value: Blend | undefined;
  readonly onChange: (blend: Blend) => void;
  readonly testID: string;
}

/** How a picture meets what lies below it. */
export function BlendChoice({ value = 'normal', onChange, testID }: Props) {
  return <Choice label="Blend" value={value} options={BLENDS} onChange={onChange} testID={testID} />;
}
