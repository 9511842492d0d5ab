import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { soundFillSchema } from '../media/soundFill';
import type { DocumentKind } from '../values/load';
import { pictureFillSchema } from './fill';

/** Versions of a logo, for what it stands on; where one is absent, the main one serves. */
export const LOGO_ROLES = ['main', 'light', 'dark', 'small'] as const;
export type LogoRole = (typeof LOGO_ROLES)[number];

/** Words that are the same in every film. */
export const LINE_ROLES = ['line', 'name', 'handle', 'address'] as const;
export type LineRole = (typeof LINE_ROLES)[number];

export const FONT_ROLES = ['heading', 'text'] as const;
export type FontRole = (typeof FONT_ROLES)[number];

/** Sounds that tell whose film it is: when the logo stands (a sound logo), and the music that lies under all of it. */
export const SOUND_ROLES = ['logo', 'music'] as const;
export type SoundRole = (typeof SOUND_ROLES)[number];

const logo = pictureFillSchema.nullable();
const sound = soundFillSchema.nullable();
const line = z.string().max(160);
const font = z.string().min(1).max(200).nullable();

/** A client's or a series' colours, fonts, logos, standard words, sounds and templates. */
export const brandSchema = z.strictObject({
  format: z.literal('freshreel/brand'),
  version: z.literal(4),
  id: z.string().min(1),
  name: z.string().min(1).max(80),
  colours: z.strictObject({
    main: colourSchema,
    second: colourSchema,
    dark: colourSchema,
    light: colourSchema,
  }),
  logos: z.strictObject({ main: logo, light: logo, dark: logo, small: logo }),
  fonts: z.strictObject({ heading: font, text: font }),
  lines: z.strictObject({ line, name: line, handle: line, address: line }),
  sounds: z.strictObject({ logo: sound, music: sound }),
  /** Ids of the templates that are used for it. */
  templates: z.array(z.string().min(1).max(200)).max(100),
});
export type Brand = z.infer<typeof brandSchema>;

export const brandKind: DocumentKind<Brand> = {
  title: 'brand',
  format: 'freshreel/brand',
  version: 4,
  schema: brandSchema as unknown as z.ZodType<Brand>,
  upgrades: {
    // Version 1 had one logo and one line.
    1: ({ logo: main = null, line: own = '', ...rest }) => ({
      ...rest,
      logos: { main, light: null, dark: null, small: null },
      fonts: { heading: null, text: null },
      lines: { line: own, name: '', handle: '', address: '' },
    }),
    2: (brand) => ({ ...brand, templates: [] }),
    3: (brand) => ({ ...brand, sounds: { logo: null, music: null } }),
  },
};
