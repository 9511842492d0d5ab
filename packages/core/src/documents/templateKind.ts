import type { z } from 'zod';
import { linkable, linkFaults } from '../values/linking';
import type { DocumentKind } from '../values/load';
import { type Template, templateShape } from './template';
import { faultsOfTemplate } from './templateFaults';

/** A template whose parts fit together: every name used exists, links suit, nothing goes round. */
export const templateSchema = templateShape.superRefine((template, context) => {
  for (const message of faultsOfTemplate(template)) context.addIssue({ code: 'custom', message });
  const { layers, timing, camera, transparent } = template;
  for (const fault of linkFaults({ layers, timing, camera, transparent }, linkable(template.controls)))
    context.addIssue({ code: 'custom', message: fault.message, path: [...fault.path] });
});

/** Version 1 had one outline and one motion each way. */
function upgradeTexts(document: Record<string, unknown>): Record<string, unknown> {
  const layers = (list: unknown): unknown => (Array.isArray(list) ? list.map(layer) : list);
  // Half of a line on the edge lay below the letters.
  const outline = ({ paint, width }: Record<string, unknown>) => ({
    paint,
    width: { product: [width, 0.5] },
    side: 'outside',
  });
  const layer = (held: unknown): unknown => {
    if (typeof held !== 'object' || held === null) return held;
    const { stroke, motion, ...rest } = held as Record<string, unknown>;
    if (rest.kind === 'group') return { ...(held as object), layers: layers(rest.layers) };
    if (rest.kind !== 'text') return held;
    const each = Object.entries((motion ?? {}) as Record<string, unknown>).map(([way, m]) => [way, [m]]);
    return {
      ...rest,
      ...(stroke ? { outlines: [outline(stroke as Record<string, unknown>)] } : {}),
      ...(motion ? { motion: Object.fromEntries(each) } : {}),
    };
  };
  return { ...document, layers: layers(document.layers) };
}

/** Version 2 knew assets by the file they were in, beside the template. */
function upgradeAssets(document: Record<string, unknown>): Record<string, unknown> {
  const { assets } = document;
  if (typeof assets !== 'object' || assets === null) return document;
  const named = Object.keys(assets).map((name) => [name, `asset:${String(document.id)}/${name}`]);
  return { ...document, assets: Object.fromEntries(named) };
}

export const templateKind: DocumentKind<Template> = {
  title: 'template',
  format: 'freshreel/template',
  version: 6,
  schema: templateSchema as unknown as z.ZodType<Template>,
  upgrades: {
    1: upgradeTexts,
    2: upgradeAssets,
    // Version 4 has values over time, and samples that sit as they were kept; what there was stays as it is.
    3: (document) => document,
    // Version 5 has lines and boxes for the eye, what a control says, pictures in the guide, stand-ins and curves of ties.
    4: (document) => document,
    // Version 6 has sounds of the brand.
    5: (document) => document,
  },
};
