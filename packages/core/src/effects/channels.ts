import type { Surface } from '../canvas/surface';
import type { EffectTools } from './kind';

/**
 * Red to the left, green and blue to the right. Parts that share no channel add up under the screen mode, each with its
 * own alpha (W3C Compositing 1, §9 and §10).
 */
export function channelsApart(apart: number, surface: Surface, tools: EffectTools): Surface {
  const { width, height } = surface.canvas;
  const result = tools.borrow(width, height);
  const part = (colour: string, dx: number) => {
    const own = tools.borrow(width, height);
    const { context } = own;
    context.drawImage(surface.canvas, dx, 0);
    context.globalCompositeOperation = 'multiply';
    context.fillStyle = colour;
    context.fillRect(0, 0, width, height);
    context.globalCompositeOperation = 'destination-in';
    context.drawImage(surface.canvas, dx, 0);
    context.globalCompositeOperation = 'source-over';
    result.context.globalCompositeOperation = 'screen';
    result.context.drawImage(own.canvas, 0, 0);
    tools.giveBack(own);
  };
  const by = Math.round(apart / 2);
  part('#ff0000', -by);
  part('#00ffff', Math.round(apart) - by);
  result.context.globalCompositeOperation = 'source-over';
  tools.giveBack(surface);
  return result;
}
