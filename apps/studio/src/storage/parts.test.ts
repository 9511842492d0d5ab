import fc from 'fast-check';
import { changedParts, withParts } from './parts';

const value = fc.oneof(
  fc.integer({ max: 3, min: 0 }),
  fc.constant(null),
  fc.array(fc.nat(2), { maxLength: 2 }),
);
const inner = fc.record({ a: value, b: value });
const document = fc.record({
  x: value,
  y: value,
  in: inner,
  logo: fc.record({ main: fc.oneof(value, inner) }),
});

describe('parts of a document that two tabs change', () => {
  it('put into what they were taken from make the document again', () => {
    fc.assert(
      fc.property(document, document, (now, before) => {
        expect(withParts(before, changedParts(now, before))).toEqual(now);
        expect(changedParts(now, now)).toEqual({});
      }),
    );
  });

  it('of different parts both count, in either order', () => {
    const before = { name: 'a', colours: { main: '#000', dark: '#111' }, logos: { main: null }, list: [1] };
    const mine = { ...before, colours: { main: '#fff', dark: '#111' }, list: [1, 2] };
    const theirs = {
      ...before,
      name: 'b',
      colours: { main: '#000', dark: '#222' },
      logos: { main: { media: 'm' } },
    };
    const both = {
      name: 'b',
      colours: { main: '#fff', dark: '#222' },
      logos: { main: { media: 'm' } },
      list: [1, 2],
    };
    expect(withParts(theirs, changedParts(mine, before))).toEqual(both);
    expect(withParts(mine, changedParts(theirs, before))).toEqual(both);
  });

  it('something that is put as a whole is not mixed with what was there', () => {
    const before = { logos: { main: { media: 'a', name: 'A' } } };
    const other = { logos: { main: null } };
    const parts = changedParts({ logos: { main: { media: 'b', name: 'A' } } }, before);
    expect(withParts(other, parts)).toEqual({ logos: { main: { media: 'b', name: 'A' } } });
  });
});
