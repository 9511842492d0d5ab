import { listedOf } from '@fresh-reel/core';
import { allTemplates } from '@fresh-reel/templates';
import { TemplateSearch } from './search';

const TEMPLATES = allTemplates().map(listedOf);
const search = new TemplateSearch(TEMPLATES);
const ids = (asked: string) => search.find(asked).templates.map((t) => t.id);

describe('searching templates', () => {
  it.each([
    ['intro', 'gust-sting'],
    ['outro', 'sign-off'],
    ['subscribe', 'sign-off'],
    ['follow', 'sign-off'],
    ['subtitle', 'name-strap'],
    ['slideshow', 'drift-wall'],
    ['photos', 'four-corners'],
    ['transparent', 'name-strap'],
    ['vertical', 'tall-hook'],
    ['9:16', 'tall-hook'],
    ['news', 'name-strap'],
    ['music', 'drift-wall'],
    ['lower thirds', 'name-strap'],
    ['lowr third', 'name-strap'],
    ['Qoutes', 'quote-card'],
    ['galleries', 'drift-wall'],
    ['bold opener', 'four-corners'],
    ['transition', 'torn-across'],
    ['overlays', 'light-leak'],
    ['clapperboard', 'slate'],
    ['speech bubbles', 'speech-bubble'],
    ['arrow', 'pointer'],
    ['film burn', 'light-leak'],
  ])('%s finds %s', (asked, id) => {
    const { near } = search.find(asked);
    expect(near).toBe(false);
    expect(ids(asked)).toContain(id);
  });

  it('puts what is named so first', () => {
    expect(ids('lower third')[0]).toBe('name-strap');
    expect(ids('drift wall')[0]).toBe('drift-wall');
  });

  it('gives all, in their order, when nothing is asked', () => {
    expect(ids('  ')).toEqual(TEMPLATES.map((t) => t.id));
  });

  it('offers the nearest where nothing answers', () => {
    const { templates, near } = search.find('countdwn to the kite opener');
    expect(near).toBe(true);
    expect(templates.length).toBeGreaterThan(0);
    expect(search.find('zzzzzzzz').templates).toEqual([]);
  });
});
