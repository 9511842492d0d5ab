/** Whether the user asked the system for less motion. */
export const lessMotion = (): boolean =>
  globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

/** How the page scrolls by itself. */
export const scrollBehaviour = (): 'auto' | 'smooth' => (lessMotion() ? 'auto' : 'smooth');
