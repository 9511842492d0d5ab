import { type ComponentType, type LazyExoticComponent, lazy } from 'react';

/**
 * A place that is loaded when one goes there, or there is time: the first page does not wait for it.
 * @param load gets it
 */
export const later = <P>(load: () => Promise<ComponentType<P>>): LazyExoticComponent<ComponentType<P>> =>
  lazy(async () => ({ default: await load() }));
