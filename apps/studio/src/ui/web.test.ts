import { arrowOf, type KeyPress, onKeys } from './web';

describe('keys', () => {
  it('that are taken go no further, and others do', () => {
    const done: string[] = [];
    const press = (key: string) =>
      ({
        key,
        shiftKey: true,
        altKey: false,
        preventDefault: () => done.push(`${key} kept`),
        stopPropagation: () => done.push(`${key} stopped`),
      }) as unknown as KeyPress;
    const { onKeyDown } = onKeys((key, shift) => key === 'Enter' && shift);
    onKeyDown(press('Enter'));
    onKeyDown(press('Tab'));
    expect(done).toEqual(['Enter kept', 'Enter stopped']);
  });

  it('with arrows point right and down', () => {
    expect([arrowOf('ArrowRight'), arrowOf('ArrowUp'), arrowOf('Enter')]).toEqual([
      [1, 0],
      [0, -1],
      undefined,
    ]);
  });
});
