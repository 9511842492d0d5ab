import { type ListedTemplate, listedOf } from '@fresh-reel/core';
import { allTemplates } from './index';

/**
 * What lists tell of the built-in templates, in the order they are shown. The app brings this alone along, written down
 * when it is built, and fetches a template's document when it is opened.
 */
export const LISTED: readonly ListedTemplate[] = allTemplates().map(listedOf);
