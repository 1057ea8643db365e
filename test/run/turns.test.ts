import { setTimeout } from 'node:timers/promises';
import { Turns } from '../../src/run/turns.js';

describe('turns', () => {
  it('are taken in the order of the places, whichever comes first', async () => {
    const turns = new Turns(3);
    const taken: number[] = [];
    const take = async (place: number, after: number) => {
      await setTimeout(after);
      await turns.before(place, 5_000);
      taken.push(place);
      turns.pass(place);
    };
    await Promise.all([take(2, 0), take(1, 20), take(0, 40)]);
    expect(taken).toEqual([0, 1, 2]);
  });

  it('are not waited for longer than the bound', async () => {
    const turns = new Turns(2);
    expect(await turns.before(1, 10)).toBe(false);
  });

  it('pass over what failed', async () => {
    const turns = new Turns(2);
    const second = turns.before(1, 60_000);
    turns.pass(0);
    expect(await second).toBe(true);
  });
});
