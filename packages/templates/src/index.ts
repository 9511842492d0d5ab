import { openDocument, templateKind } from '@fresh-reel/core';
import { catalogOf } from './catalog';
import { SOURCES } from './sources';

/** The built-in templates, in the order they are shown; each is checked as one of a stranger's would be. */
export const { TEMPLATES, templateById, assetOf } = catalogOf(
  SOURCES.map((data) => openDocument(templateKind, data)),
);

export { SHIPPED } from './files';
