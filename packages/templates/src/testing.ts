/** Words longer than anybody has use for, which designs must stand. */
export const LONG =
  'Wilhelmina Featherstonehaugh-Ravenscroft of the Marram and District Kite Flyers’ Association';
