import { collection } from './collection';
import { families } from './families';
import { files } from './files';
import { films } from './films';
import { footage } from './footage';
import { latency } from './latency';
import { own } from './own';
import { packages } from './packages';
import { place } from './place';
import { playing } from './playing';
import { render } from './render';
import { start } from './start';
import { templates } from './templates';
import { text } from './text';
import { workshop } from './workshop';

/** What is measured, by name, in the order in which all of it is. */
export const PARTS = {
  render,
  templates,
  families,
  text,
  files,
  films,
  interface: latency,
  start,
  place,
  footage,
  collection,
  workshop,
  own,
  package: packages,
  playing,
};
