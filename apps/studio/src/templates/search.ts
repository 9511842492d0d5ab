import type { ListedTemplate, Use } from '@fresh-reel/core';
import MiniSearch, { type SearchOptions } from 'minisearch';
import { takes, USE_NAMES } from '../preview/templateFacts';

/** What people call a kind of template, besides its name (common practice). */
const USE_WORDS: Readonly<Record<Use, string>> = {
  'lower-third': 'strap nameplate name caption banner interview news subtitle speaker guest',
  'logo-sting': 'intro ident logo animation reveal bumper brand opening',
  opener: 'intro opening start beginning headline promo trailer teaser',
  callout: 'hook pointer annotation arrow comic dialogue label reel story short vertical promo social',
  'end-card': 'outro ending end subscribe follow channel like social handle bell thanks',
  title: 'heading headline chapter intro text words',
  caption: 'subtitle lower place date location where when news label',
  quote: 'quotation testimonial review saying words text',
  gallery: 'slideshow photos pictures images album memories wall montage music',
  card: 'announcement notice ticket poster invitation event date weather forecast flyer',
  credits: 'outro ending end cast crew names roll list thanks subtitle music',
  overlay: 'transition cut wipe flash burn film texture effect cover',
};

/** Words that follow from how a template is made. */
function made({ covers, takes: { picture, sound, logo }, shape }: ListedTemplate): string {
  return [
    covers ? 'background full' : 'transparent alpha overlay over footage',
    shape === 'tall' ? 'vertical tall portrait 9:16 phone story reel short' : 'wide 16:9 horizontal',
    picture > 0 ? 'photo picture image clip video footage' : '',
    picture > 2 ? 'slideshow photos pictures' : '',
    sound > 0 ? 'sound music' : '',
    logo > 0 ? 'logo brand' : '',
  ].join(' ');
}

/** A word as it is looked for: small letters, one and many alike. */
function term(word: string): string {
  const small = word.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '');
  if (small.length > 4 && small.endsWith('ies')) return `${small.slice(0, -3)}y`;
  return small.length > 3 && small.endsWith('s') && !small.endsWith('ss') ? small.slice(0, -1) : small;
}

const words = (text: string) => text.split(/[\s,.;“”"()]+/).filter(Boolean);

/** Templates by what people type: with typing errors, in the plural, by other words for the same thing. */
export class TemplateSearch {
  private readonly index: MiniSearch;

  constructor(private readonly templates: readonly ListedTemplate[]) {
    this.index = new MiniSearch({
      fields: ['name', 'use', 'moods', 'about', 'takes', 'words'],
      tokenize: words,
      processTerm: term,
      searchOptions: {
        boost: { name: 4, use: 3, moods: 2, about: 1.5 },
        prefix: (word) => word.length > 2,
        combineWith: 'AND',
      },
    });
    this.index.addAll(
      templates.map((t) => ({
        id: t.id,
        name: t.name,
        use: USE_NAMES[t.use],
        moods: t.moods.join(' '),
        about: t.about,
        takes: takes(t),
        words: `${USE_WORDS[t.use]} ${made(t)}`,
      })),
    );
  }

  /**
   * Templates that answer, the likeliest first; all of them, in their order, when nothing is asked.
   * @returns `near` when none answers to all of it, and these come nearest
   */
  find(asked: string): { readonly templates: readonly ListedTemplate[]; readonly near: boolean } {
    if (asked.trim() === '') return { templates: this.templates, near: false };
    // What is spelt right is not mixed with what only looks like it.
    for (const fuzzy of [
      false,
      (word: string) => (word.length > 4 ? 2 : word.length > 3 ? 1 : false),
    ] as const) {
      const found = this.found(asked, { fuzzy });
      if (found.length > 0) return { templates: found, near: false };
    }
    const some = this.found(asked, { combineWith: 'OR', fuzzy: 0.45, prefix: true });
    return { templates: some.slice(0, 6), near: true };
  }

  private found(asked: string, options: SearchOptions): ListedTemplate[] {
    const byId = new Map(this.templates.map((t) => [t.id, t]));
    return this.index.search(asked, options).flatMap(({ id }) => byId.get(id as string) ?? []);
  }
}
