import type { Template } from '@fresh-reel/core';
import { copyPart, nameOfPart } from '@fresh-reel/core/make';
import { useState } from 'react';
import { useTemplate, useTemplates } from '../storage/useTemplates';
import { PickSheet } from './fields/PickSheet';

interface Props {
  readonly onCopy: (by: (t: Template) => { template: Template; id: string }) => void;
  readonly onClose: () => void;
}

/** Which part of which template comes in. */
export function CopySheet({ onCopy, onClose }: Props) {
  const { templates } = useTemplates();
  const [chosen, setChosen] = useState<string>();
  const { template: from } = useTemplate(chosen);
  if (!from)
    return (
      <PickSheet title="From which template?" options={templates} onChoose={setChosen} onClose={onClose} />
    );
  return (
    <PickSheet
      title={`Which part of “${from.name}”?`}
      options={[...from.layers].reverse().map((l) => ({ id: l.id, name: nameOfPart(l) }))}
      onChoose={(id) => {
        onCopy((t) => copyPart(from, id, t));
        onClose();
      }}
      onClose={onClose}
    />
  );
}
