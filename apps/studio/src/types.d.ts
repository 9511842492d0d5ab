/** The part of the package that holds this one hash. */
declare module 'hash-wasm/dist/sha256.umd.min.js' {
  export { createSHA256, sha256 } from 'hash-wasm';
}
