import { takesPictures, takesWords } from '../documents/controls';
import { type Fill, isPicture, isSound, isWords, type PictureFill, type SoundFill } from '../documents/fill';
import type { Slot, Template } from '../documents/template';
import type { Words } from '../layers/kind';
import { everyLayer, type Layer } from '../layers/registry';
import { freshPicture } from '../media/pictureFill';
import { changedLayers } from './changes';

const NO_WORDS: Words = { text: '', runs: [] };

/** What stands in the slots of one graphic: the user's, else the samples; nothing where the user left one empty. */
export class SlotFills {
  private readonly slots: ReadonlyMap<string, Slot>;

  constructor(
    private readonly template: Template,
    private readonly fill: Fill,
  ) {
    this.slots = new Map(template.slots.map((s) => [s.id, s]));
  }

  private hides(slotId: string): boolean {
    return this.fill.hidden?.includes(slotId) ?? false;
  }

  private own(slotId: string) {
    return Object.hasOwn(this.fill.slots, slotId) ? this.fill.slots[slotId] : undefined;
  }

  /** The picture or clip that a slot shows: the user's, the sample, or nothing; nothing of a hidden slot. */
  pictureFill(slotId: string): PictureFill | undefined {
    return this.hides(slotId) ? undefined : this.slotPicture(slotId);
  }

  /** The picture or clip that a slot holds, shown or hidden. */
  slotPicture(slotId: string): PictureFill | undefined {
    const held = this.own(slotId);
    if (held === null) return undefined;
    if (isPicture(held)) return held;
    const slot = this.slots.get(slotId);
    if (!slot || !takesPictures(slot) || slot.sample === null) return undefined;
    const focus = slot.kind === 'picture' ? { focus: slot.sampleFocus } : {};
    const media = this.asset(slot.sample);
    return media === undefined ? undefined : { ...freshPicture(media), ...slot.sampleAs, ...focus };
  }

  /** The sound that is heard of a slot: the user's, the sample, or nothing; nothing of a hidden slot. */
  soundFill(slotId: string): SoundFill | undefined {
    return this.hides(slotId) ? undefined : this.slotSound(slotId);
  }

  /** The sound that a slot holds, heard or hidden. */
  slotSound(slotId: string): SoundFill | undefined {
    const held = this.own(slotId);
    if (held === null) return undefined;
    if (isSound(held)) return held;
    const slot = this.slots.get(slotId);
    if (slot?.kind !== 'sound' || slot.sample === null) return undefined;
    const sound = this.asset(slot.sample);
    return sound === undefined ? undefined : { ...slot.sampleAs, sound };
  }

  /** The media id of one of the template's assets. */
  asset(name: string): string | undefined {
    const { assets } = this.template;
    return Object.hasOwn(assets, name) ? assets[name] : undefined;
  }

  /** The words a text or list slot shows, with their runs; none of a hidden slot. */
  words(slotId: string): Words {
    return this.hides(slotId) ? NO_WORDS : this.slotWords(slotId);
  }

  /** The words a text or list slot holds, shown or hidden. */
  slotWords(slotId: string): Words {
    const held = this.own(slotId);
    if (held === null) return NO_WORDS;
    const slot = this.slots.get(slotId);
    const shown = isWords(held) ? held : slot && takesWords(slot) ? slot.sample : '';
    return typeof shown === 'string' ? { text: shown, runs: [] } : shown;
  }

  /** Whether a slot has something to show; a picture counts also while its file is missing. */
  isFilled(slotId: string): boolean {
    const slot = this.slots.get(slotId);
    if (!slot) return false;
    if (takesWords(slot)) return this.words(slotId).text.trim() !== '';
    return (slot.kind === 'sound' ? this.soundFill(slotId) : this.pictureFill(slotId)) !== undefined;
  }

  /** Every file that its slots and texts hold, shown, heard or hidden. */
  held(): string[] {
    const ofSlots = this.template.slots.flatMap(
      (s) => this.slotPicture(s.id)?.media ?? this.slotSound(s.id)?.sound ?? [],
    );
    return [...new Set([...ofSlots, ...this.ofTexts(), ...this.standIns()])];
  }

  /** Every sound that is heard, by its media id. */
  sounds(): string[] {
    return [...new Set(this.template.slots.flatMap((s) => this.soundFill(s.id)?.sound ?? []))];
  }

  /** Every picture and clip that is shown, by its media id. */
  media(): string[] {
    const ofSlots = this.template.slots
      .filter(takesPictures)
      .flatMap((s) => this.pictureFill(s.id)?.media ?? []);
    return [...new Set([...ofSlots, ...this.ofTexts(), ...this.standIns()])];
  }

  /** What stands for layers. */
  private standIns(): string[] {
    return [...everyLayer(this.template.layers)].flatMap((layer) =>
      layer.standIn === undefined ? [] : (this.asset(layer.standIn) ?? []),
    );
  }

  /** Pictures that are seen through letters. */
  private ofTexts(): string[] {
    return lettersMedia(changedLayers(this.template.layers, this.fill.texts));
  }
}

/** Files that are seen through letters of some layers. */
export const lettersMedia = (layers: readonly Layer[]): string[] =>
  [...everyLayer(layers)].flatMap((layer) => {
    const fill = layer.kind === 'text' ? layer.fill : undefined;
    return typeof fill === 'object' && 'media' in fill ? [fill.media.media] : [];
  });
