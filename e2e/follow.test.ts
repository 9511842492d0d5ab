import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, quiet, serve, tap, waitForText } from './support/browser';
import { ffmpeg, folder } from './support/clips';
import { goTo } from './support/place';

const session = serve();

/** Pixels a second by which the thing in the made clip goes right. */
const SPEED = 80;

/** A chequered tile that goes right over a plain ground, 640 × 360, two seconds of 25 frames. It begins with its middle at 130, 180. */
function tileClip(name: string): string {
  const path = `${folder}/${name}`;
  const tile =
    'color=c=0x2B4050:s=60x60:r=25:d=2,format=yuv444p,geq=lum=60+120*mod(floor(X/12)+floor(Y/20)\\,2):cb=110:cr=140';
  ffmpeg([
    ...['-f', 'lavfi', '-i', 'color=c=0x9AB0C0:s=640x360:r=25:d=2', '-f', 'lavfi', '-i', tile],
    ...['-filter_complex', `[0][1]overlay=x='100+${SPEED}*t':y=150:format=auto`],
    ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-crf', '12', '-y', path],
  ]);
  return path;
}

const middle = async (page: Page, testID: string) => {
  const { x, y, width, height } = (await (await page.waitForSelector(id(testID)))!.boundingBox())!;
  return { x: x + width / 2, y: y + height / 2, width };
};

async function dragTo(page: Page, testID: string, x: number, y: number): Promise<void> {
  const at = await middle(page, testID);
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await page.mouse.move(x, y, { steps: 6 });
  await page.mouse.up();
}

describe('a title that goes along with a thing', () => {
  let page: Page;
  let picture: { x: number; y: number; width: number };
  /** A place in the clip, on the page. */
  const onPage = (x: number, y: number) => {
    const k = picture.width / 640;
    return [picture.x - picture.width / 2 + x * k, picture.y - (360 * k) / 2 + y * k] as const;
  };
  beforeAll(async () => {
    page = await session.page(LAPTOP, '/templates/name-strap');
    await tap(page, 'over-footage');
    await choose(page, 'footage-add', tileClip('tile.mp4'));
    await page.waitForSelector(id('slot-name'));
    await tap(page, 'step-place');
    await tap(page, 'row-name-strap');
    await goTo(page, 25);
    picture = await middle(page, 'place-picture');
  });

  it('says what can be followed, and what is too flat', async () => {
    await tap(page, 'follow-begin');
    await dragTo(page, 'patch', ...onPage(500, 60));
    await waitForText(page, 'follow-footing', /little to hold on to/);
    // At second 1 the tile is 80 pixels farther right.
    await dragTo(page, 'patch', ...onPage(130 + SPEED, 180));
    await waitForText(page, 'follow-footing', /followed well/);
  });

  it('is followed both ways, and lies as far from it everywhere', async () => {
    const before = await middle(page, 'place-picture');
    expect(before.width).toBeGreaterThan(300);
    await tap(page, 'follow-both');
    await page.waitForSelector(id('follow-sure'), { timeout: 60_000 });
    const now = await middle(page, 'way-now');
    await goTo(page, 40);
    const later = await middle(page, 'way-now');
    // 15 frames of 25 a second.
    const moved = ((15 / 25) * SPEED * picture.width) / 640;
    expect(Math.abs(later.x - now.x - moved)).toBeLessThan(1.5);
    // Once the title has come in, it stands as far from the thing.
    const box = await middle(page, 'place-box-name-strap');
    await goTo(page, 48);
    const end = await middle(page, 'way-now');
    const laterBox = await middle(page, 'place-box-name-strap');
    expect(Math.abs(laterBox.x - box.x - (end.x - later.x))).toBeLessThan(1.5);
    await goTo(page, 15);
    const sooner = await middle(page, 'way-now');
    expect(Math.abs(now.x - sooner.x - ((10 / 25) * SPEED * picture.width) / 640)).toBeLessThan(1.5);
  });

  it('a correction by hand is kept and followed from, and one undo takes it back', async () => {
    await goTo(page, 30);
    const was = await middle(page, 'way-now');
    await tap(page, 'follow-begin');
    const [x, y] = onPage(130 + 1.2 * SPEED, 168);
    await dragTo(page, 'patch', x, y);
    await tap(page, 'follow-on');
    await page.waitForSelector(id('follow-sure'), { timeout: 60_000 });
    await page.waitForSelector(id('way-now'));
    const corrected = await middle(page, 'way-now');
    expect(Math.abs(corrected.y - was.y)).toBeGreaterThan(6);
    await tap(page, 'undo');
    await quiet(page);
    expect(Math.abs((await middle(page, 'way-now')).y - was.y)).toBeLessThan(1.5);
  });

  it('stays where it is when it is asked to, and the way is gone', async () => {
    await tap(page, 'follow-end');
    await page.waitForSelector(id('way-now'), { hidden: true });
    await goTo(page, 40);
    const at40 = await middle(page, 'place-box-name-strap');
    await goTo(page, 48);
    expect(Math.abs((await middle(page, 'place-box-name-strap')).x - at40.x)).toBeLessThan(1);
    await page.close();
  });
});
