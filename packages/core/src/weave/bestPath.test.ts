import fc from 'fast-check';
import { STATES, type AcousticModel } from './acousticModel.ts';
import { bestPath, type Observed } from './bestPath.ts';
import { FILLER, JUNCTION, latticeOf, type Lattice, type Token } from './lattice.ts';

/** A model of silence and three sounds, whose states are numbered by phone, whatever stands beside. */
const phones = ['SIL', 'A', 'B', 'C'];
const model: AcousticModel = {
  phones,
  silence: 0,
  senones: phones.length * STATES,
  means: new Float32Array(0),
  variances: new Float32Array(0),
  stay: new Float32Array(phones.length * STATES).fill(Math.log(0.6)),
  leave: new Float32Array(phones.length * STATES).fill(Math.log(0.4)),
  own: Uint16Array.from({ length: phones.length * STATES }, (_, at) => at),
  baseOf: Uint8Array.from({ length: phones.length * STATES }, (_, at) => Math.floor(at / STATES)),
  weights: new Uint8Array(0),
  senoneOf: (_place, phone, _left, _right, state) => phone * STATES + state,
};
const token = (ways: number[][], leftOut = -8): Token => ({ readings: [[ways]], leftOut });
const costs = { pause: -1, noise: -2, filler: -5, wait: -0.6 };
const options = { coarse: true, costs, noises: [] };

/** A sound in which each frame is plainly one phone, or none of them. */
const heard = (frames: string): Observed => ({
  count: frames.length,
  scores: (frame, senones, count) =>
    Array.from(senones.subarray(0, count), (senone) =>
      phones[model.baseOf[senone] as number]?.startsWith(
        frames[frame] === '.' ? 'SIL' : (frames[frame] ?? ''),
      )
        ? 0
        : -10,
    ),
  filler: () => -4,
});

const tokensOn = (lattice: Lattice, observed: Observed, beam = Infinity) => {
  const path = bestPath(lattice, observed, beam);
  return (
    path &&
    Array.from(path.states, (state) => {
      const own = lattice.token[state] as number;
      return own >= 0 ? String(own) : lattice.emits[state] === FILLER ? '?' : '.';
    }).join('')
  );
};

describe('bestPath', () => {
  const script = [token([[1, 2]]), token([[3]]), token([[2, 1]])];

  it('puts words where they are said, and pauses to none', () => {
    expect(tokensOn(latticeOf(model, script, options), heard('..AABB.CCC.BBA.'))).toBe(
      '..0000.111.222.',
    );
  });

  it('takes the way in which a word is said', () => {
    const either = [
      token([
        [1, 2],
        [3, 3],
      ]),
    ];
    expect(tokensOn(latticeOf(model, either, options), heard('.CCCC.'))).toBe('.0000.');
  });

  it('leaves a word out that is not said', () => {
    expect(tokensOn(latticeOf(model, script, options), heard('..AABB...BBA.'))).toBe(
      '..0000...222.',
    );
  });

  it('goes past words that are not written', () => {
    expect(tokensOn(latticeOf(model, script, options), heard('.AABB.BABABAB.CCC.BBA.'))).toMatch(
      /^\.0000\.\?+\.111\.222\.$/,
    );
  });

  it('does not wait for a word that follows within a line, where the one before fits later too', () => {
    const observed = heard('.AABB..................AAB.CCC.');
    const waiting = [token([[1, 2]]), token([[3]])];
    const going = [token([[1, 2]]), { ...token([[3]]), follows: true }];
    expect(tokensOn(latticeOf(model, waiting, options), observed)).toMatch(/^\.0000/);
    expect(tokensOn(latticeOf(model, going, options), observed)).toMatch(/^\.[?.]{22}0+\.111\.$/);
  });

  it('has a word that is bound to some frames begin in them, and those beside it keep out', () => {
    // The first word fits three times, the second twice.
    const observed = heard('.AABB.CC.AABB.CC.AABB.....');
    const bound = (from: number, to: number) => {
      const script = [{ ...token([[1, 2]]), bounds: { from, to } }, token([[3]])];
      return tokensOn(latticeOf(model, script, options), observed);
    };
    expect(bound(0, 3)).toMatch(/^\.0000\.11/);
    expect(bound(7, 11)).toMatch(/^[.?]{9}0000\.11/);
    // The frames of the sound count, not those of the stretch.
    const late = { ...observed, soundFrame: (frame: number) => frame + 100 };
    const script = [{ ...token([[1, 2]]), bounds: { from: 107, to: 111 } }, token([[3]])];
    expect(tokensOn(latticeOf(model, script, options), late)).toBe(bound(7, 11));
  });

  it('begins and ends at once where it is tight', () => {
    const tight = latticeOf(model, script, { ...options, tight: { start: true, end: true } });
    expect(tokensOn(tight, heard('.AABCBA.'))).toMatch(/^0+1+2+$/);
  });

  it('gives nothing where the beam is too narrow, and the same where it is wide enough', () => {
    // All has to be said, though there is silence at the end.
    const all = [token([[1, 2]], -Infinity), token([[3]], -Infinity)];
    const lattice = latticeOf(model, all, { ...options, tight: { start: true, end: true } });
    const observed = heard('AABB......');
    expect(bestPath(lattice, observed, 2)).toBeUndefined();
    expect(tokensOn(lattice, observed)).toMatch(/^0000\.+1$/);
    expect(tokensOn(lattice, observed, 30)).toBe(tokensOn(lattice, observed));
  });

  it('finds what trying every path finds', () => {
    /** The best of all paths, one after the other, by the states that lead to each. */
    const tried = (lattice: Lattice, observed: Observed): number => {
      const known = new Map<string, number>();
      const score = (frame: number, emitted: number): number => {
        if (emitted === FILLER) return observed.filler(frame);
        return observed.scores(
          frame,
          Int32Array.of(lattice.senones[emitted] as number),
          1,
        )[0] as number;
      };
      const best = (state: number, frame: number): number => {
        const key = `${String(state)} ${String(frame)}`;
        const before = known.get(key);
        if (before !== undefined) return before;
        const emitted = lattice.emits[state] as number;
        const from = lattice.firstBefore[state] as number;
        const ways = lattice.before.subarray(from, lattice.firstBefore[state + 1]);
        let found = state === lattice.start && frame === -1 ? 0 : -Infinity;
        if (emitted === JUNCTION)
          ways.forEach((other, at) => {
            found = Math.max(found, best(other, frame) + odds(other, state, at));
          });
        else if (frame >= 0) {
          found = best(state, frame - 1) + (lattice.stay[state] as number);
          ways.forEach((other, at) => {
            found = Math.max(found, best(other, frame - 1) + odds(other, state, at));
          });
          found += score(frame, emitted);
        }
        known.set(key, found);
        return found;
      };
      const odds = (from: number, to: number, way: number): number => {
        for (
          let edge = lattice.firstNext[from] as number;
          edge < (lattice.firstNext[from + 1] as number);
          edge++
        )
          if (lattice.next[edge] === to && lattice.choice[edge] === way + 1)
            return lattice.odds[edge] as number;
        return -Infinity;
      };
      return Math.max(...lattice.ends.map((end) => best(end, observed.count - 1)));
    };
    const word = fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 3 });
    const words = fc.array(fc.array(word, { minLength: 1, maxLength: 2 }), {
      minLength: 1,
      maxLength: 3,
    });
    const sound = fc.array(fc.constantFrom('A', 'B', 'C', '.'), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(words, sound, fc.boolean(), (ways, frames, coarse) => {
        const lattice = latticeOf(
          model,
          ways.map((each) => token(each)),
          { ...options, coarse },
        );
        const observed = heard(frames.join(''));
        const path = bestPath(lattice, observed, Infinity);
        const best = tried(lattice, observed);
        if (path) expect(path.score).toBeCloseTo(best, 3);
        else expect(best).toBe(-Infinity);
      }),
      { numRuns: 150 },
    );
  });
});
