import { webcrypto } from 'node:crypto';
import { TextDecoder, TextEncoder } from 'node:util';

// What browsers have and jsdom lacks.
Object.assign(globalThis, { TextDecoder, TextEncoder });
Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });
