import { held } from '../testing/memoryStorage';

jest.mock('@react-native-async-storage/async-storage', () => jest.requireActual('../testing/memoryStorage'));

import {
  changePreferences,
  FIRST_PREFERENCES,
  readPreferences,
  regrouped,
  renamedGroup,
  takePreferences,
} from './preferences';

beforeEach(() => held.clear());

describe('what was chosen elsewhere', () => {
  const renamed = { templates: new Map([['mine', 'mine-2']]), brands: new Map([['main', 'b-2']]) };
  const group = (name: string, ...templates: string[]) => ({ name, templates });
  const brought = {
    ...FIRST_PREFERENCES,
    ...{ brand: 'main', wearing: true, signature: 'The crew', favourites: ['mine', 'crew'] },
    groups: [group('Sundays', 'mine', 'poster')],
  };

  it('is all of it where nothing was chosen yet, by the ids that things have here', async () => {
    await takePreferences(brought, renamed);
    expect(await readPreferences()).toEqual({
      ...brought,
      brand: 'b-2',
      favourites: ['mine-2', 'crew'],
      groups: [group('Sundays', 'mine-2', 'poster')],
    });
  });

  it('comes beside what is here, and changes none of it', async () => {
    const here = { ...FIRST_PREFERENCES, favourites: ['poster'], groups: [group('Sundays', 'crew')] };
    await changePreferences(here);
    await takePreferences(brought, renamed);
    await takePreferences(brought, renamed);
    expect(await readPreferences()).toEqual({
      ...here,
      favourites: ['poster', 'mine-2', 'crew'],
      groups: [group('Sundays', 'crew', 'mine-2', 'poster')],
    });
  });

  it('that cannot be read leaves what is here', async () => {
    await changePreferences({ ...FIRST_PREFERENCES, favourites: ['poster'] });
    await takePreferences({ favourites: 7, groups: [{ name: '' }], ground: 'blue' }, renamed);
    expect(await readPreferences()).toEqual({ ...FIRST_PREFERENCES, favourites: ['poster'] });
  });
});

it('a group of templates is there as long as one is in it', () => {
  const one = regrouped([], 'Sundays', 'crew', true);
  const two = regrouped(one, 'Sundays', 'poster', true);
  expect(two).toEqual([{ name: 'Sundays', templates: ['crew', 'poster'] }]);
  expect(regrouped(two, 'Sundays', 'crew', true)[0]!.templates).toEqual(['poster', 'crew']);
  expect(regrouped(regrouped(two, 'Sundays', 'crew', false), 'Sundays', 'poster', false)).toEqual([]);
});

it('a group gets another name in its place, and what a group of that name holds', () => {
  const groups = [
    { name: 'Sundays', templates: ['crew', 'poster'] },
    { name: 'Hooks', templates: ['tall-hook'] },
    { name: 'Straps', templates: ['groove', 'crew'] },
  ];
  expect(renamedGroup(groups, 'Hooks', 'Starts').map((g) => g.name)).toEqual(['Sundays', 'Starts', 'Straps']);
  expect(renamedGroup(groups, 'Sundays', 'Straps')).toEqual([
    { name: 'Straps', templates: ['groove', 'crew', 'poster'] },
    { name: 'Hooks', templates: ['tall-hook'] },
  ]);
  expect(renamedGroup(groups, 'Hooks', 'Hooks')).toEqual(groups);
  expect(renamedGroup(groups, 'None', 'Other')).toEqual(groups);
});

it('what is chosen at once, here or in another tab, all counts', async () => {
  await Promise.all([
    changePreferences({ signature: 'The crew' }),
    changePreferences({ favourites: ['poster'] }),
    changePreferences({ signature: 'The crew of two' }),
  ]);
  // Another tab writes what it chose beside that.
  held.set('preferences', JSON.stringify({ ...(await readPreferences()), notices: true }));
  await changePreferences({ singleKeys: false });
  expect(await readPreferences()).toMatchObject({
    ...{ signature: 'The crew of two', favourites: ['poster'], notices: true, singleKeys: false },
  });
});
