import type { z } from 'zod';

/** A check of a schema, such as a length or a range. */
export interface SchemaCheck {
  readonly check: string;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly value?: number;
  readonly inclusive?: boolean;
  readonly format?: string;
  readonly pattern?: RegExp;
}

/** What a schema is made of, as zod 4 keeps it: read by what writes the format, and by what edits it. */
export interface SchemaDef {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly out?: z.ZodType;
  readonly getter?: () => z.ZodType;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly catchall?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly element?: z.ZodType;
  readonly items?: readonly z.ZodType[];
  readonly valueType?: z.ZodType;
  readonly entries?: Readonly<Record<string, string>>;
  readonly values?: readonly unknown[];
  readonly defaultValue?: unknown;
  readonly checks?: readonly { readonly _zod: { readonly def: SchemaCheck } }[];
}

export const defOf = (schema: z.ZodType): SchemaDef => schema.def as unknown as SchemaDef;

export const checksOf = ({ checks = [] }: SchemaDef): SchemaCheck[] => checks.map((c) => c._zod.def);
