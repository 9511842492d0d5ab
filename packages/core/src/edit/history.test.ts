import fc from 'fast-check';
import { cancel, change, redo, settle, startHistory, undo } from './history';

describe('history', () => {
  it('goes back and forth', () => {
    let h = startHistory('a');
    h = change(change(h, 'b'), 'c');
    expect(undo(h).present).toBe('b');
    expect(undo(undo(undo(h))).present).toBe('a');
    expect(redo(undo(h)).present).toBe('c');
    expect(redo(h)).toBe(h);
  });

  it('takes a gesture back in one step, and starts a new one once settled', () => {
    let h = startHistory(0);
    for (let i = 1; i <= 30; i++) h = change(h, i, 'drag');
    expect(undo(h).present).toBe(0);
    h = change(settle(h), 31, 'drag');
    expect(undo(h).present).toBe(30);
  });

  it('takes back a gesture that was cancelled, and nothing that was settled before', () => {
    let h = change(startHistory('a'), 'typed', 'words');
    expect(cancel(change(h, 'dragged', 'drag'))).toEqual({ ...h, gesture: undefined });
    h = settle(h);
    expect(cancel(h)).toBe(h);
    expect(undo(cancel(change(h, 'dragged', 'drag'))).present).toBe('a');
  });

  it('forgets the future after a change, and ignores a change to the same', () => {
    let h = undo(change(startHistory('a'), 'b'));
    expect(change(h, 'a')).toBe(h);
    h = change(h, 'c');
    expect(redo(h).present).toBe('c');
  });

  it('undoes any row of changes back to the beginning', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer(), fc.constantFrom('x', 'y', undefined)), { maxLength: 60 }),
        (edits) => {
          let h = startHistory<object>({ first: true });
          const first = h.present;
          for (const [value, gesture] of edits) h = change(h, { value }, gesture);
          const last = h.present;
          for (let i = 0; i < edits.length; i++) h = undo(h);
          expect(h.present).toBe(first);
          for (let i = 0; i < edits.length; i++) h = redo(h);
          expect(h.present).toBe(last);
        },
      ),
    );
  });
});
