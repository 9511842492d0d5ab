import { z } from 'zod';
import { sequenceKind } from '../media/sequence';
import { graphicsOf } from '../reel/graphicTime';
import { openDocument } from '../values/load';
import { brandKind } from './brand';
import { contentsKind } from './package';
import { reelKind } from './reel';
import { templateKind } from './templateKind';

describe('every document can be told as a JSON Schema (draft 2020-12)', () => {
  it.each([templateKind, reelKind, brandKind, contentsKind, sequenceKind].map((k) => [k.title, k] as const))(
    '%s',
    (_, kind) => {
      const schema = z.toJSONSchema(kind.schema as z.ZodType);
      expect(schema.$schema).toContain('2020-12');
      expect(JSON.stringify(schema)).toContain(kind.format);
    },
  );
});

describe('a document within another', () => {
  const mark = { at: 0 };
  const template = (version: number, part: object = {}) => ({
    ...{ format: 'freshreel/template', version, id: 't', name: 'T', about: 'T.', use: 'title' },
    ...{ transparent: true, rate: { num: 60, den: 1 }, timing: { in: 60, hold: 60, out: 60 }, still: mark },
    scenes: [{ id: 'all', name: 'All', from: mark, to: { at: 60, of: 'out' }, still: mark }],
    ...{ slots: [], controls: [], looks: [], guide: ['T.'] },
    layers: [{ id: 'a', kind: 'shape', outline: { kind: 'ellipse' } }],
    ...part,
  });
  const reel = (version: number, held: object) => ({
    ...{ format: 'freshreel/reel', version, id: 'r', name: 'R', created: '', changed: '' },
    ...{ frame: { width: 1920, height: 1080 }, rate: { num: 60, den: 1 } },
    tracks: [{ id: 't', graphics: [{ id: 'g', template: held, fill: {}, start: 0 }] }],
  });

  it('opens by its own version, whatever that of the other is', () => {
    const words = {
      id: 'w',
      kind: 'text',
      words: { text: 'W' },
      family: 'Figtree',
      size: 9,
      fill: { colour: '#FFFFFF' },
    };
    const old = { ...words, fit: { width: 9 }, stroke: { paint: { colour: '#000000' }, width: 4 } };
    for (const version of [1, 2]) {
      const opened = openDocument(reelKind, reel(version, template(1, { layers: [old] })));
      expect(graphicsOf(opened)[0]!.template).toMatchObject({
        version: templateKind.version,
        layers: [{ outlines: [{ side: 'outside' }] }],
      });
    }
  });

  it('names the assets of an older template as they were named then', () => {
    const assets = { sky: 'shared/sky.jpg' };
    const opened = openDocument(reelKind, reel(2, template(2, { assets })));
    expect(graphicsOf(opened)[0]!.template.assets).toEqual({ sky: 'asset:t/sky' });
    const path = { sky: '../../etc/passwd' };
    expect(() => openDocument(reelKind, reel(2, template(3, { assets: path })))).toThrow('hash of a file');
  });

  it('of a newer version is told as such', () => {
    expect(() => openDocument(reelKind, reel(2, template(9)))).toThrow(/newer Fresh Reel \(version 9/);
    expect(() => openDocument(reelKind, reel(2, { ...template(2), format: 'other' }))).toThrow(
      'not a template',
    );
  });
});
