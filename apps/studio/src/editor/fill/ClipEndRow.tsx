import type { ClipFill } from '@fresh-reel/core';
import { Choice } from '../../ui/Choice';
import { Row } from '../../ui/Row';

type End = NonNullable<ClipFill['end']>;

interface Props {
  readonly value: End | undefined;
  readonly onChange: (end: End) => void;
  readonly testID: string;
}

/** What is seen of a clip once it is over. */
export function ClipEndRow({ value = 'hold', onChange, testID }: Props) {
  return (
    <Row name="When it is over">
      <Choice
        label="When it is over"
        value={value}
        options={[
          { id: 'hold', name: 'Last frame stays' },
          { id: 'loop', name: 'Begins again' },
          { id: 'stretch', name: 'Plays slower' },
        ]}
        onChange={onChange}
        testID={testID}
      />
    </Row>
  );
}
