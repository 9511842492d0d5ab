import { readFileSync } from 'node:fs';
import { NodeStudio } from './studio';

it('a vector picture has as many pixels as one likes, any other its own', async () => {
  const studio = await NodeStudio.start();
  const svg =
    '\n<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect width="30" height="20"/></svg>';
  await studio.addPicture('vector', new TextEncoder().encode(svg));
  await studio.addPicture(
    'raster',
    readFileSync(new URL('../../../demo/radio-logo.png', `file://${__dirname}/`)),
  );
  expect(studio.mediaFacts('vector')).toEqual({ width: 30, height: 20, density: Number.POSITIVE_INFINITY });
  expect(studio.mediaFacts('raster')).toEqual({ width: expect.any(Number), height: expect.any(Number) });
  await expect(studio.addPicture('none', new Uint8Array([1, 2, 3]))).rejects.toThrow();
  studio.close();
});
