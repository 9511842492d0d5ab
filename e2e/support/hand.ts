import type { Page } from 'puppeteer-core';
import { atRest, drawn, id } from './browser';

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A finger on a phone, a mouse on a laptop. */
export class Hand {
  constructor(
    readonly page: Page,
    readonly touch: boolean,
  ) {}

  async tap({ x, y }: Point): Promise<void> {
    if (this.touch) await this.page.touchscreen.tap(x, y);
    else await this.page.mouse.click(x, y);
  }

  async drag(from: Point, to: Point): Promise<void> {
    const steps = 8;
    const at = (i: number): [number, number] => [
      from.x + ((to.x - from.x) * i) / steps,
      from.y + ((to.y - from.y) * i) / steps,
    ];
    if (this.touch) {
      await this.page.touchscreen.touchStart(...at(0));
      for (let i = 1; i <= steps; i++) await this.page.touchscreen.touchMove(...at(i));
      await this.page.touchscreen.touchEnd();
    } else {
      await this.page.mouse.move(...at(0));
      await this.page.mouse.down();
      for (let i = 1; i <= steps; i++) await this.page.mouse.move(...at(i));
      await this.page.mouse.up();
    }
    await drawn(this.page);
  }

  /** Where something is once it stands still: what lies on the picture comes with its painting. */
  async box(testID: string): Promise<{ x: number; y: number; width: number; height: number }> {
    const element = (await this.page.waitForSelector(id(testID)))!;
    await element.evaluate(atRest);
    return (await element.boundingBox())!;
  }

  async middle(testID: string): Promise<Point> {
    const { x, y, width, height } = await this.box(testID);
    return { x: x + width / 2, y: y + height / 2 };
  }

  /** Goes to a part of the reel's length. */
  async seek(part: number): Promise<void> {
    const { x, y, width, height } = await this.box('seek');
    await this.tap({ x: x + width * part, y: y + height / 2 });
    await drawn(this.page);
  }
}
