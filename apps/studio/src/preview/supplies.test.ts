import type { ReelScene } from '@fresh-reel/core';
import type { BrowserStudio } from '../engine/browserStudio';
import { Supplies } from './supplies';

jest.mock('../engine/browserStudio', () => ({}));

const scene = {} as ReelScene;

/** An engine that holds what it is given, and clips that are opened when the test lets them. */
function setUp({ media = [] as string[], families = [] as string[] } = {}) {
  const here = new Set<string>();
  const fonts = new Set<string>();
  const asked: string[] = [];
  const told: string[] = [];
  const engine = {
    coming: new Set<string>(),
    openClip: async (id: string) => {
      if (!id.startsWith('clip')) return false;
      here.add(id);
      return true;
    },
    dropClips: () => [],
    dropPictures: () => [],
    addPicture: (id: string) => here.add(id),
    dropMedia: (id: string) => here.delete(id),
    dropFamily: (family: string) => fonts.delete(family),
    missingMedia: () => media.filter((id) => !here.has(id)),
    hasFonts: () => true,
    loadFonts: async () => undefined,
    missingFamilies: () => families.filter((f) => !fonts.has(f)),
    addFonts: (all: { family: string }[]) => {
      for (const { family } of all) fonts.add(family);
    },
  };
  const supplies = new Supplies(
    engine as unknown as BrowserStudio,
    {
      picture: (id) => void asked.push(id),
      fonts: (all) => void asked.push(...all),
    },
    () => media,
    (id) => void told.push(id),
  );
  return { supplies, engine, asked, told, here };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));
const picture = { bitmap: {} as ImageBitmap, width: 1, height: 1 };

describe('pictures and clips of previews', () => {
  it('are asked for once, and are on their way until they are told', async () => {
    const { supplies, engine, asked, told } = setUp({ media: ['sha256:a'] });
    let ready = false;
    const both = Promise.all([supplies.pictures(scene), supplies.pictures(scene)]).then(() => {
      ready = true;
    });
    await settled();
    expect(asked).toEqual(['sha256:a']);
    expect([...engine.coming]).toEqual(['sha256:a']);
    expect(ready).toBe(false);
    supplies.gotPicture('sha256:a', picture);
    await both;
    expect([engine.coming.size, told]).toEqual([0, ['sha256:a']]);
  });

  it('that are not to be had are missing, and asked for again when they come', async () => {
    const { supplies, engine, asked, here } = setUp({ media: ['sha256:a'] });
    const first = supplies.pictures(scene);
    await settled();
    supplies.gotPicture('sha256:a', null);
    await first;
    expect(engine.coming.size).toBe(0);
    await supplies.pictures(scene);
    expect(asked).toHaveLength(1);
    supplies.changed({ kind: 'media', id: 'a' });
    const again = supplies.pictures(scene);
    await settled();
    expect(asked).toHaveLength(2);
    supplies.gotPicture('sha256:a', picture);
    await again;
    expect(here.has('sha256:a')).toBe(true);
  });

  it('that were removed are let go', async () => {
    const { supplies, here } = setUp({ media: ['sha256:a'] });
    const first = supplies.pictures(scene);
    await settled();
    supplies.gotPicture('sha256:a', picture);
    await first;
    supplies.changed({ kind: 'media', id: 'a' });
    expect(here.size).toBe(0);
  });

  it('that come while they are asked for are asked for once more', async () => {
    const { supplies, engine, asked, here } = setUp({ media: ['sha256:a'] });
    const both = supplies.pictures(scene);
    await settled();
    supplies.changed({ kind: 'media', id: 'a' });
    await settled();
    expect(asked).toEqual(['sha256:a', 'sha256:a']);
    // The first answer is from before the change.
    supplies.gotPicture('sha256:a', null);
    expect([...engine.coming]).toEqual(['sha256:a']);
    supplies.gotPicture('sha256:a', picture);
    await both;
    expect(here.has('sha256:a')).toBe(true);
  });

  it('clips are opened without the page', async () => {
    const { supplies, asked, told } = setUp({ media: ['clip'] });
    await supplies.pictures(scene);
    expect([asked, told]).toEqual([[], ['clip']]);
  });
});

describe('fonts of previews', () => {
  it('of the user’s are waited for, and asked for again when they come later', async () => {
    const { supplies, asked } = setUp({ families: ['Own'] });
    const first = supplies.fonts(scene);
    await settled();
    supplies.gotFonts(['Own'], []);
    await first;
    await supplies.fonts(scene);
    expect(asked).toEqual(['Own']);
    supplies.changed({ kind: 'font', id: 'Own' });
    const again = supplies.fonts(scene);
    await settled();
    supplies.gotFonts(['Own'], [{ family: 'Own', weight: 400, bytes: new Uint8Array() }]);
    await again;
    expect(asked).toEqual(['Own', 'Own']);
  });

  it('that change while they are asked for keep nobody waiting', async () => {
    const { supplies, asked } = setUp({ families: ['Own'] });
    const first = supplies.fonts(scene);
    await settled();
    supplies.changed({ kind: 'font', id: 'Own' });
    expect(asked).toEqual(['Own', 'Own']);
    supplies.gotFonts(['Own'], []);
    supplies.gotFonts(['Own'], [{ family: 'Own', weight: 400, bytes: new Uint8Array() }]);
    await first;
  });
});
