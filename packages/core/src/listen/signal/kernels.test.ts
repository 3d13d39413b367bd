import { Kernels } from './kernels.ts';

describe('the kernels', () => {
  it('make room for arrays that do not touch each other, past a page', () => {
    const kernels = new Kernels();
    const places = [3, 40_000, 5].map((floats) => kernels.room(floats));
    kernels.at(places[1] ?? 0, 40_000).fill(7);
    expect([...kernels.at(places[0] ?? 0, 3)]).toEqual([0, 0, 0]);
    expect([...kernels.at(places[2] ?? 0, 5)]).toEqual([0, 0, 0, 0, 0]);
    expect(places.every((place) => place % 16 === 0)).toBe(true);
  });

  it('find how far values lie over the greatest of three before', () => {
    const kernels = new Kernels();
    const [now, before, to] = [0, 1, 2].map(() => kernels.room(7)) as [number, number, number];
    kernels.at(now, 7).set([9, 5, 5, 5, 5, 5, 9]);
    kernels.at(before, 7).set([0, 1, 3, 0, 0, 8, 0]);
    kernels.run.rise(now, before, 7, to);
    expect([...kernels.at(to, 7)].slice(1, 6)).toEqual([2, 2, 2, 0, 0]);
  });

  it('look values up by their leading bits, whatever the number', () => {
    const kernels = new Kernels();
    const table = kernels.room(2 ** 9);
    kernels.at(table, 2 ** 9).set(Array.from({ length: 2 ** 9 }, (_, at) => at));
    const [from, to] = [kernels.room(4), kernels.room(4)];
    kernels.at(from, 4).set([0.5, 1, 2, -NaN]);
    kernels.run.look(from, 4, 2, table, 22, to);
    // Of 32 bits 22 do not count: sign, exponent and one bit of the mantissa are left.
    expect([...kernels.at(to, 4)]).toEqual([254, 256, 258, 511]);
  });
});
