import { FAMILIES, FONTS, type FontGroup } from '@fresh-reel/fonts';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { type FontRecord, listFonts, readFont } from '../storage/fonts';
import { keys } from '../storage/queries';

/** A family in the font list: a shipped one, or one of the user's. */
export interface ListedFamily {
  readonly family: string;
  readonly group: FontGroup | 'yours';
  readonly weights: readonly number[];
  readonly axes: Readonly<Record<string, { name: string; min: number; max: number; default: number }>>;
  readonly own?: readonly FontRecord[];
}

export function useFonts() {
  return useQuery({ queryKey: keys.fonts, queryFn: listFonts });
}

/** Shipped families, and before them the user's own. */
export function useFamilies(): readonly ListedFamily[] {
  const { data = [] } = useFonts();
  const names = [...new Set(data.map((f) => f.family))];
  const own = names.map((family): ListedFamily => {
    const files = data.filter((f) => f.family === family);
    const { wght, ...axes } = files[0]!.axes;
    const weights = wght
      ? [...new Set([wght.min, 400, 500, 600, 700, 800, wght.max])].filter(
          (w) => w >= wght.min && w <= wght.max,
        )
      : files.map((f) => f.weight);
    return {
      family,
      group: 'yours',
      weights,
      axes: Object.fromEntries(Object.entries(axes).map(([tag, a]) => [tag, { ...a, name: tag }])),
      own: files,
    };
  });
  return [...own, ...FAMILIES];
}

const loaded = new Map<string, Promise<string>>();

/** A CSS family in which a row of the font list can be written; nothing until it is loaded. */
export function useSampleFace({ family, own }: ListedFamily): string | undefined {
  const [face, setFace] = useState<string>();
  useEffect(() => {
    let current = true;
    const name = `sample ${family}`;
    let loading = loaded.get(name);
    if (!loading) {
      loading = loadSample(name, family, own);
      loaded.set(name, loading);
      loading.catch(() => loaded.delete(name));
    }
    loading.then(
      (ready) => current && setFace(ready),
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [family, own]);
  return face;
}

async function loadSample(name: string, family: string, own: ListedFamily['own']): Promise<string> {
  const shipped = FONTS.filter((f) => f.family === family);
  const nearest = shipped.sort((a, b) => Math.abs(a.weight - 500) - Math.abs(b.weight - 500))[0];
  const source = own ? await readFont(own[0]!) : `url(/fonts/${nearest!.file})`;
  if (!source) throw new Error(`The font "${family}" is not there any more.`);
  const face = new FontFace(name, source as string | BufferSource);
  await face.load();
  document.fonts.add(face);
  return name;
}

/** The user's font files that a set of families asks for. */
export async function ownFontFiles(
  families: ReadonlySet<string>,
): Promise<{ family: string; weight: number; bytes: Uint8Array }[]> {
  const records = (await listFonts()).filter((f) => families.has(f.family));
  const files = await Promise.all(
    records.map(async (r) => ({ family: r.family, weight: r.weight, bytes: await readFont(r) })),
  );
  return files.flatMap((f) => (f.bytes ? [{ ...f, bytes: f.bytes }] : []));
}
