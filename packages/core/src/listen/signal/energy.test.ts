import { energyOf, packEnergy, unpackEnergy } from './energy.ts';

/** As momentary loudness is kept: half LU from -100. */
const kept = (lufs: number) => 2 * (lufs + 100);

describe('the energy of a sound', () => {
  it('goes from its quiet places to its loud ones, a fifth of a second after its loudness', () => {
    const momentary = Uint8Array.from({ length: 100 }, (_, at) => kept(at < 50 ? -30 : -10));
    const energy = energyOf({ momentary });
    expect([energy[20], energy[51], energy[52], energy[99]]).toEqual([0, 0, 255, 255]);
  });

  it('does not make much of little, and hears nothing in silence', () => {
    const even = Uint8Array.from({ length: 60 }, (_, at) => kept(at % 2 ? -20 : -19));
    expect(energyOf({ momentary: even })[30]).toBeGreaterThan(200);
    const silent = new Uint8Array(30).fill(kept(-90));
    expect(energyOf({ momentary: silent }).every((value) => value === 0)).toBe(true);
    expect(energyOf({ momentary: new Uint8Array(0) })).toHaveLength(0);
  });

  it('is kept as text', () => {
    const energy = Uint8Array.from({ length: 300 }, (_, at) => at % 256);
    expect(unpackEnergy(packEnergy(energy))).toEqual(energy);
  });
});
