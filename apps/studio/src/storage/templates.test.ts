import { held } from '../testing/memoryStorage';

jest.mock('@react-native-async-storage/async-storage', () => jest.requireActual('../testing/memoryStorage'));

import { listedOf } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { listRemoved, putBack } from './removed';
import {
  deleteTemplate,
  listEditions,
  listTemplates,
  readTemplate,
  saveEdition,
  saveTemplate,
} from './templates';

beforeEach(() => held.clear());

describe('templates in storage', () => {
  const own = { ...templateById('four-corners'), id: 'mine', name: 'Mine', from: 'four-corners' };

  it('are listed by what is told of them, which opens none of them', async () => {
    await saveTemplate(own);
    const listed = await listTemplates();
    expect(listed).toMatchObject([
      { id: 'mine', from: 'four-corners', edition: 1, takes: { text: 4, list: 0, picture: 3 } },
    ]);
    expect(listed[0]!.windows).toHaveLength(3);
    // What is told of the whole template, also what needs a scene to be known.
    expect(listed).toEqual([JSON.parse(JSON.stringify(listedOf(own)))]);
    const text = held.get('template/mine')!;
    held.set('template/mine', 'not looked at');
    expect(await listTemplates()).toEqual(listed);
    held.set('template/mine', text);
    for (const damaged of [undefined, '[{"half', '{}', '[{"id":"mine"}]']) {
      if (damaged === undefined) held.delete('listed');
      else held.set('listed', damaged);
      expect(await listTemplates()).toEqual(listed);
      expect(JSON.parse(held.get('listed')!)).toMatchObject([{ name: 'Mine' }]);
    }
  });

  it('are told as their newest edition, and go and come back with it', async () => {
    await saveTemplate(own);
    await saveEdition({ ...own, name: 'Mine, wider' });
    const listed = await listTemplates();
    expect(listed).toMatchObject([{ id: 'mine', name: 'Mine, wider', edition: 2 }]);
    expect((await listEditions('mine')).map((t) => t.name)).toEqual(['Mine, wider', 'Mine']);
    await deleteTemplate(listed[0]!);
    expect(await listTemplates()).toEqual([]);
    await putBack((await listRemoved())[0]!);
    expect(await listTemplates()).toEqual(listed);
    expect(await readTemplate('mine')).toMatchObject({ name: 'Mine, wider', edition: 2 });
  });

  it('written at once are all told of, and one that went is not any more', async () => {
    await Promise.all(['a', 'b', 'c'].map((id) => saveTemplate({ ...own, id, name: id })));
    expect((await listTemplates()).map((t) => t.name)).toEqual(['a', 'b', 'c']);
    await deleteTemplate({ id: 'b', name: 'b' });
    await saveTemplate({ ...own, id: 'd', name: 'd' });
    expect((await listTemplates()).map((t) => t.name)).toEqual(['a', 'c', 'd']);
    expect(JSON.parse(held.get('listed')!)).toHaveLength(3);
  });

  it('that do not open any more are left out, and stay as they are', async () => {
    await saveTemplate(own);
    held.set('template/torn', '{"format":"freshreel/te');
    expect((await listTemplates()).map((t) => t.id)).toEqual(['mine']);
    expect(held.get('template/torn')).toBe('{"format":"freshreel/te');
    expect(await readTemplate('torn')).toBeUndefined();
  });
});
