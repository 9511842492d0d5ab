import type { ValueOf } from '../layers/common';
import { isConstant, type Property, type Value } from '../values/property';

/** A motion with plain values only: what its properties come to now. Links to controls end here. */
export function plainMotion<M>(motion: M, value: ValueOf): M {
  return plain(motion, value) as M;
}

const SOURCES = ['keys', 'control', 'shape', 'frame', 'wave', 'parts', 'sum', 'product'];

function plain(data: unknown, value: ValueOf): unknown {
  if (typeof data !== 'object' || data === null) return data;
  if (Array.isArray(data)) return data.map((part) => plain(part, value));
  const names = Object.keys(data);
  if (names.length <= 3 && names.some((n) => SOURCES.includes(n)) && !isConstant(data as Property<Value>)) {
    return value(data as Property<Value>);
  }
  return Object.fromEntries(Object.entries(data).map(([key, part]) => [key, plain(part, value)]));
}
