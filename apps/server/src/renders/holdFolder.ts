import { createHash } from 'node:crypto';
import { unlink } from 'node:fs/promises';
import { createConnection, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/**
 * Holds a folder for this process alone: through a socket, which is gone when the process is, however it ended.
 * @returns a function that lets go
 * @throws {Error} when another process holds it
 */
export async function holdFolder(folder: string): Promise<() => Promise<void>> {
  const name = createHash('sha256').update(resolve(folder)).digest('hex').slice(0, 24);
  const path =
    process.platform === 'win32' ? `\\\\.\\pipe\\${name}` : join(tmpdir(), `fresh-reel-${name}.sock`);
  for (let tries = 0; ; tries++) {
    const server = await listening(path);
    if (server) return () => new Promise((done) => void server.close(() => done()));
    if (tries > 0 || (await answers(path)))
      throw new Error(
        `Another Fresh Reel works in "${folder}". Stop it, or give this one its own: --data <folder>.`,
      );
    // What is left of one that was killed.
    await unlink(path).catch(() => undefined);
  }
}

const listening = (path: string): Promise<Server | undefined> =>
  new Promise((done) => {
    const server = createServer((socket) => socket.destroy());
    server.once('error', () => done(undefined));
    server.listen(path, () => {
      server.unref();
      done(server);
    });
  });

const answers = (path: string): Promise<boolean> =>
  new Promise((done) => {
    const socket = createConnection(path);
    socket.once('connect', () => {
      socket.destroy();
      done(true);
    });
    socket.once('error', () => done(false));
  });
