import { unpackFont } from '@fresh-reel/fonts/unpack';
import type { FromUnpack, ToUnpack } from './messages';

/**
 * Unpacks WOFF2. The unpacker makes functions from text at run time, which the page's security policy forbids; the
 * server lets this worker alone do so, and lets it reach no network.
 */
self.onmessage = ({ data }: MessageEvent<ToUnpack>) => {
  const tell = (message: FromUnpack) => postMessage(message);
  unpackFont(data.bytes).then(
    (bytes) => tell({ bytes }),
    (error: unknown) => tell({ fault: error instanceof Error ? error.message : String(error) }),
  );
};
