import { createHmac } from 'node:crypto';
import { same } from '../access';
import type { RangeTask } from './order';

/**
 * What a server that has a token puts on each range it asks for, so that whoever can write to the queue cannot ask for
 * others, or have them brought elsewhere: HMAC-SHA256 (RFC 2104) of the order and the server's address.
 */
export function sealOf({ order, server }: Omit<RangeTask, 'seal'>, token: string): string {
  return createHmac('sha256', token)
    .update(JSON.stringify([server, order]))
    .digest('hex');
}

/** Whether a range was asked for by who has a token. */
export const isSealed = (task: RangeTask, token: string): boolean => same(task.seal, sealOf(task, token));
