/**
 * Stands for fast-check in all tests. What lands must not depend on the dice: properties are tried with the same values
 * in every run, but where one is told a seed; `npm run test:seeds` draws another.
 */
const fc = require('../../node_modules/fast-check/lib/cjs/fast-check.js');

fc.configureGlobal({ seed: Number(process.env.FRESH_REEL_SEED ?? 20261201) });
module.exports = fc;
