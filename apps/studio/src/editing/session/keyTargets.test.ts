import {
  changeText,
  GraphicScene,
  GraphicTime,
  graphicOf,
  isKeyed,
  keysOf,
  layoutFrame,
  newReel,
  putKey,
  type Reel,
  setControl,
} from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { type KeyTarget, keyedOf, sameTarget, TEXT_KEYS, type TextKey } from './keyTargets';

const start = newReel(templateById('wind-line'), { id: 'r', name: 'R', now: '', shape: 'wide' });
const editor = (reel: Reel) => {
  const graphic = graphicOf(reel, 'r-1');
  const scene = new GraphicScene(graphic.template, graphic.fill, layoutFrame(reel.frame), DOCUMENT_ONLY);
  return { reel, scene, work: { graphic, scene, time: new GraphicTime(scene, graphic.start, reel) } };
};
const target = (key: TextKey): KeyTarget => ({ kind: 'text', layer: 'headline', key });

describe('values that can have keyframes', () => {
  it.each(Object.keys(TEXT_KEYS) as TextKey[])(
    '%s of a text takes keys, shows them, and goes back',
    (key) => {
      const { scene } = editor(start);
      const keyed = keyedOf(target(key), editor(start))!;
      expect(isKeyed(keyed.held)).toBe(false);
      const put = putKey(
        putKey(keyed.held, scene.clock, 10, keyed.held as never),
        scene.clock,
        150,
        keyed.held as never,
      );
      const reel = keyed.write(start, put);
      const now = keyedOf(target(key), editor(reel))!;
      expect(keysOf(now.held, scene.clock)).toHaveLength(2);
      expect(graphicOf(now.reset(reel), 'r-1').fill).toEqual(graphicOf(start, 'r-1').fill);
    },
  );

  it('one part of a placing leaves the others', () => {
    const moved = changeText(start, 'r-1', 'headline', {
      placing: { move: [40, 0], scale: 1, turn: 12, tilt: [0, 0] },
    });
    const turn = keyedOf(target('placing.turn'), editor(moved))!;
    expect(turn.held).toBe(12);
    const back = graphicOf(turn.reset(moved), 'r-1').fill.texts!.headline!.placing;
    expect(back).toEqual({ move: [40, 0], scale: 1, turn: 0, tilt: [0, 0] });
  });

  it('a control', () => {
    const slide: KeyTarget = { kind: 'control', id: 'slide' };
    const reel = setControl(start, 'r-1', 'slide', { keys: [{ at: 0, of: 'in', value: 3 }] });
    expect(isKeyed(keyedOf(slide, editor(reel))!.held)).toBe(true);
    expect(keyedOf(slide, editor(keyedOf(slide, editor(reel))!.reset(reel)))!.held).toBe(0);
  });

  it('what is not there has none', () => {
    expect(keyedOf({ kind: 'control', id: 'nothing' }, editor(start))).toBeUndefined();
    expect(keyedOf({ kind: 'text', layer: 'nothing', key: 'size' }, editor(start))).toBeUndefined();
    expect(sameTarget(target('size'), { ...target('size') })).toBe(true);
    expect(sameTarget(target('size'), undefined)).toBe(false);
  });

  it('two values written in one moment, as two fingers do, are both kept', () => {
    const seen = editor(start);
    const once = keyedOf(target('placing.scale'), seen)!.write(start, 2);
    const twice = keyedOf(target('placing.turn'), seen)!.write(once, 30);
    expect(graphicOf(twice, 'r-1').fill.texts?.headline?.placing).toMatchObject({ scale: 2, turn: 30 });
  });
});
