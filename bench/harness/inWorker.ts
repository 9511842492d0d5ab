import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { SHIPPED } from '@fresh-reel/templates';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { build } from 'esbuild';
import type { Browser } from 'puppeteer-core';
import type { Measures } from '../page/page';

/** How something is measured. */
interface How {
  /** A file on disk that it is measured on. */
  readonly path?: string;
  /** Templates that are measured, where not all are. */
  readonly of?: readonly string[] | undefined;
  /** Called at each tenth of long work. */
  readonly onTenth?: () => void;
  /** How many workers that paint it gets ports to. */
  readonly painters?: number;
}

export interface WorkerBench {
  /** Measures in a worker of the bench page. */
  measure<K extends keyof Measures>(what: K, how?: How): Promise<Awaited<ReturnType<Measures[K]>>>;
  close(): void;
}

/** The page that measures: core and the studio's engine in one worker. */
async function serve(root: string): Promise<{ address: string; close: () => void }> {
  const { outputFiles } = await build({
    entryPoints: {
      bench: `${root}bench/page/page.ts`,
      paint: `${root}apps/studio/src/render/workers/paint.worker.ts`,
    },
    outdir: '/',
    bundle: true,
    format: 'iife',
    write: false,
    platform: 'browser',
    plugins: [
      {
        name: 'nothing of Node',
        setup(b) {
          b.onResolve({ filter: /^(fs|path|crypto)$/ }, ({ path }) => ({ path, namespace: 'nothing' }));
          b.onLoad({ filter: /.*/, namespace: 'nothing' }, () => ({ contents: 'module.exports = {}' }));
        },
      },
    ],
  });
  const server = createServer(async (request, response) => {
    const path = new URL(request.url!, 'http://x').pathname;
    if (path === '/')
      return response
        .setHeader('content-type', 'text/html')
        .end('<!doctype html><link rel="icon" href="data:,"><input type="file">');
    const script = outputFiles.find((f) => f.path === path);
    if (script) return response.setHeader('content-type', 'text/javascript').end(script.text);
    if (path.startsWith('/bench-pictures/')) {
      const asset = `${root}packages/templates/src/${SHIPPED.find(path.replace('/bench-pictures/', ''))}`;
      if (!asset.endsWith('.svg')) return response.end(readFileSync(asset));
      // Vector pictures are drawn by the page in the app; a worker alone gets them drawn.
      const image = await loadImage(asset);
      const canvas = createCanvas(2048, 2048);
      canvas.getContext('2d').drawImage(image, 0, 0, 2048, 2048);
      return response.end(await canvas.encode('png'));
    }
    const file = `${root}apps/studio/dist${path}`;
    if (existsSync(file)) return response.end(readFileSync(file));
    response.statusCode = 404;
    return response.end();
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const { port } = server.address() as AddressInfo;
  return { address: `http://localhost:${port}/`, close: () => server.close() };
}

/** What a worker answers. */
type Answer = { readonly fault: string } | { readonly fault?: undefined; readonly value: unknown };

export async function workerBench(root: string, browser: Browser): Promise<WorkerBench> {
  const { address, close } = await serve(root);
  const page = await browser.newPage();
  let tenth: () => void = () => undefined;
  await page.exposeFunction('tenth', () => tenth());
  await page.goto(address);
  return {
    close,
    async measure<K extends keyof Measures>(
      what: K,
      { path, of, onTenth = () => undefined, painters = 0 }: How = {},
    ): Promise<Awaited<ReturnType<Measures[K]>>> {
      const input = (await page.$('input'))!;
      if (path) await input.uploadFile(path);
      tenth = onTenth;
      const answer = await page.evaluate(
        (name, ids, field, ofFile, count) =>
          new Promise<Answer>((resolve) => {
            const worker = new Worker('/bench.js');
            const others = Array.from({ length: count }, () => new Worker('/paint.js'));
            const ports = others.map((other) => {
              const { port1, port2 } = new MessageChannel();
              other.postMessage({ type: 'conductor', port: port1 }, [port1]);
              other.onmessage = async ({ data: { needs: id } }: MessageEvent<{ needs: string }>) => {
                const response = await fetch(`/bench-pictures/${id}`);
                const bitmap = await createImageBitmap(await response.blob());
                const { width, height } = bitmap;
                other.postMessage({ type: 'picture', id, picture: { bitmap, width, height } }, [bitmap]);
              };
              return port2;
            });
            worker.onmessage = ({ data }: MessageEvent<Answer & { tenth?: true }>) => {
              if (data.tenth) return void window.tenth();
              for (const each of [worker, ...others]) each.terminate();
              resolve(data);
            };
            worker.onerror = (event) => resolve({ fault: event.message });
            const file = ofFile ? field.files![0] : undefined;
            worker.postMessage({ what: name, of: ids, file, painters: ports }, ports);
          }),
        what,
        of,
        input,
        path !== undefined,
        painters,
      );
      if (answer.fault !== undefined) throw new Error(answer.fault);
      return answer.value as Awaited<ReturnType<Measures[K]>>;
    },
  };
}

declare global {
  interface Window {
    tenth(): void;
  }
}
