import type { Layer, Template } from '@fresh-reel/core';
import { copyPart, nameOfPart } from '@fresh-reel/core/make';
import { useState } from 'react';
import { useTemplate, useTemplates } from '../storage/useTemplates';
import { PickSheet } from './fields/PickSheet';

interface PartOption {
  readonly id: string;
  readonly name: string;
  readonly about?: string;
}

interface Props {
  readonly onCopy: (by: (t: Template) => { template: Template; id: string }) => void;
  readonly onClose: () => void;
}

/** Parts, the topmost first, and those in groups after their group, with the groups that they stand in. */
function partsIn(layers: readonly Layer[], within: readonly string[] = []): PartOption[] {
  return [...layers].reverse().flatMap((layer) => [
    {
      id: layer.id,
      name: nameOfPart(layer),
      ...(within.length > 0 ? { about: `In ${within.map((name) => `“${name}”`).join(', ')}.` } : {}),
    },
    ...(layer.kind === 'group' ? partsIn(layer.layers, [...within, nameOfPart(layer)]) : []),
  ]);
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
      key="parts"
      title={`Which part of “${from.name}”?`}
      options={partsIn(from.layers)}
      onChoose={(id) => {
        onCopy((t) => copyPart(from, id, t));
        onClose();
      }}
      onClose={onClose}
    />
  );
}
