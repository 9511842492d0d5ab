/** The parts of the package that hold one hash each. */
declare module 'hash-wasm/dist/sha256.umd.min.js' {
  export { createSHA256, sha256 } from 'hash-wasm';
}
declare module 'hash-wasm/dist/crc32.umd.min.js' {
  export { createCRC32 } from 'hash-wasm';
}

/** The one file that holds all of it: what it is made of asks for helpers that the bundler hands over wrongly. */
declare module 'pdf-lib/dist/pdf-lib.min.js' {
  export * from 'pdf-lib';
}
