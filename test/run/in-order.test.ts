import { setTimeout } from 'node:timers/promises';
import { InOrder } from '../../src/run/in-order.js';

describe('things that go in order', () => {
  it('pass in the order of the places, whichever comes first', async () => {
    const order = new InOrder(3);
    const taken: number[] = [];
    const take = async (place: number, after: number) => {
      await setTimeout(after);
      await order.before(place, 5_000);
      taken.push(place);
      order.pass(place);
    };
    await Promise.all([take(2, 0), take(1, 20), take(0, 40)]);
    expect(taken).toEqual([0, 1, 2]);
  });

  it('are not waited for longer than the bound', async () => {
    const order = new InOrder(2);
    expect(await order.before(1, 10)).toBe(false);
  });

  it('pass over what failed', async () => {
    const order = new InOrder(2);
    const second = order.before(1, 60_000);
    order.pass(0);
    expect(await second).toBe(true);
  });
});
