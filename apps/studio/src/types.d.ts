/** The parts of the package that hold one hash each. */
declare module 'hash-wasm/dist/sha256.umd.min.js' {
  export { createSHA256, sha256 } from 'hash-wasm';
}
declare module 'hash-wasm/dist/crc32.umd.min.js' {
  export { createCRC32 } from 'hash-wasm';
}
