import type { Place } from '@fresh-reel/core/make';

/** The test ID of the field of a place: `field-offset`. */
export const idOfPlace = ({ path }: Place): string => `field-${path.join('-')}`;
