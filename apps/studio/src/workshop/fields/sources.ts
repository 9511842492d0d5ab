import type { Place, ValueField } from '@fresh-reel/core/make';
import { type ComponentType, createContext } from 'react';

export interface SourceProps {
  readonly place: Place;
  readonly field: ValueField;
  readonly name: string;
  readonly onClose: () => void;
}

/**
 * What asks where a value comes from. A source is made of values, each of which may have one again: so rows of values
 * find the sheet here, which is made of such rows.
 */
export const SourcesContext = createContext<ComponentType<SourceProps> | null>(null);
