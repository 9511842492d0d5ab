import { templateById } from '@fresh-reel/templates';
import { ownFill } from './ownFill';

const [A, B] = [`sha256:${'a'.repeat(64)}`, `sha256:${'b'.repeat(64)}`];

describe('a template with what the user has at hand', () => {
  it('takes words line by line, and pictures in order, as far as they go', () => {
    const strap = ownFill(templateById('name-strap'), ['Ines', 'Judge', 'More'], [], undefined);
    expect(strap.slots).toEqual({ name: 'Ines', role: 'Judge' });
    const corners = ownFill(templateById('four-corners'), ['One'], [A, B], undefined);
    const pictures = Object.entries(corners.slots).filter(([, v]) => typeof v === 'object');
    expect(pictures.map(([id]) => id)).toEqual(['photo-1', 'photo-2']);
    expect(pictures[0]![1]).toMatchObject({ media: A, scale: 1 });
  });

  it('a list takes all lines only where there is no text; nothing given changes nothing', () => {
    const hook = templateById('tall-hook');
    const lists = hook.slots.filter((s) => s.kind === 'list').map((s) => s.id);
    const texts = hook.slots.filter((s) => s.kind === 'text').map((s) => s.id);
    const { slots } = ownFill(hook, ['One', 'Two'], [], undefined);
    expect(Object.keys(slots)).toEqual(texts.length > 0 ? texts.slice(0, 2) : lists);
    expect(ownFill(hook, [], [], undefined).slots).toEqual({});
  });
});
