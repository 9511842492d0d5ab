/** SHA-256 for addresses that browsers do not call secure, where they give none; loaded when it is needed. */
export { sha256 } from 'hash-wasm/dist/sha256.umd.min.js';
