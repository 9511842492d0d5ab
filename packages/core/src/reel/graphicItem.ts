import { checkGraphic } from '../checks/checks';
import type { Check } from '../checks/finding';
import type { ControlValue } from '../documents/fill';
import type { Graphic } from '../documents/reel';
import { type EvaluatedFrame, GraphicScene, type Resources } from '../evaluate/graphicScene';
import { type FontNeeds, fontNeeds } from '../evaluate/needs';
import type { Size } from '../layers/kind';
import { graphicSounds } from '../sound/graphicSounds';
import type { FindSound, SoundPlay } from '../sound/play';
import type { Rate } from '../time/rate';
import type { Item } from './item';

/** A template with its fill, as an item of a reel. */
export class GraphicItem implements Item {
  readonly id: string;
  readonly scene: GraphicScene;

  constructor(
    { id, template, fill }: Pick<Graphic, 'id' | 'template' | 'fill'>,
    frame: Size,
    resources: Resources,
  ) {
    this.id = id;
    this.scene = new GraphicScene(template, fill, frame, resources);
  }

  get rate(): Rate {
    return this.scene.template.rate;
  }

  get length(): number {
    return this.scene.length;
  }

  get still(): number {
    return this.scene.timeOf(this.scene.template.still);
  }

  get transparent(): boolean {
    return this.scene.transparent;
  }

  evaluate(
    time: number,
    lettersOf?: string,
    driven?: Readonly<Record<string, ControlValue>>,
    filmed?: number,
    beyond?: boolean,
  ): EvaluatedFrame {
    return this.scene.evaluate(time, lettersOf, driven, filmed, beyond);
  }

  media(): string[] {
    return this.scene.slots.media();
  }

  held(): string[] {
    return this.scene.slots.held();
  }

  sounds(): string[] {
    return this.scene.slots.sounds();
  }

  plays(sound: FindSound): SoundPlay[] {
    return graphicSounds(this.scene, sound);
  }

  fonts(): FontNeeds {
    return fontNeeds(this.scene.template, this.scene.fill);
  }

  checks(): Check[] {
    return checkGraphic(this.scene);
  }
}
