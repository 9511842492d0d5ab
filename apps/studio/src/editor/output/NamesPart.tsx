import { NAME_PARTS, namesFault, USUAL_NAMES } from '@fresh-reel/core';
import { useState } from 'react';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Field } from '../../ui/Field';
import { Part } from '../../ui/Part';
import { Txt } from '../../ui/Txt';

interface Props {
  /** The pattern that was chosen. */
  readonly names: string | undefined;
  /** What a file is called by a pattern. */
  readonly nameOf: (names: string | undefined) => string;
  readonly onChange: (names: string | undefined) => void;
}

/** How the files are named: words, with parts of the reel in braces. */
export function NamesPart({ names, nameOf, onChange }: Props) {
  const { reel } = useReelEditor();
  const [typed, setTyped] = useState(names ?? USUAL_NAMES);
  const fault = typed.trim() === '' ? undefined : namesFault(reel, typed);
  const take = (text: string) => {
    const wanted = text.trim();
    const usual = wanted === '' || wanted === USUAL_NAMES;
    if (usual || !namesFault(reel, wanted)) onChange(usual ? undefined : wanted);
  };
  return (
    <Part title="Name">
      <Field
        label="How files are named"
        hideLabel
        value={typed}
        maxLength={120}
        autoCapitalize="none"
        autoCorrect={false}
        onChangeText={setTyped}
        onBlur={() => take(typed)}
        onSubmitEditing={() => take(typed)}
        fault={fault}
        testID="output-names"
      />
      <Txt kind="small" tone="quiet" testID="output-name">
        {`${nameOf(fault || typed.trim() === '' ? names : typed.trim())}. ${NAME_PARTS.map((p) => `{${p}}`).join(' ')} and the names of slots in braces are filled in.`}
      </Txt>
    </Part>
  );
}
