/**
 * How loud a sound is over time, from 0 to 1: the curve that movement follows.
 *
 * Momentary loudness, evenly in LU between a quiet place of the sound and a loud one: the tenth and the ninety-fifth of a
 * hundred of what is not silent.
 */
import { momentaryLufs, SILENT, type Level } from './loudness.ts';

export const ENERGIES_A_SECOND = 10;
/** A sound whose loud places are no louder than this over its quiet ones, in LU, is taken as if they were. */
const LEAST_RANGE = 6;
/** Momentary loudness is over 400 ms: each is about the middle of them, so many places on. */
const MIDDLE = 2;

/** @returns  0 to 255, {@link ENERGIES_A_SECOND} a second from the start of the sound */
export function energyOf({ momentary }: Pick<Level, 'momentary'>): Uint8Array<ArrayBuffer> {
  const heard = [...momentary].filter((kept) => momentaryLufs(kept) > SILENT).sort((a, b) => a - b);
  const at = (share: number) => momentaryLufs(heard[Math.floor(share * (heard.length - 1))] ?? 0);
  const loud = Math.max(at(0.95), SILENT + LEAST_RANGE);
  const quiet = Math.min(Math.max(at(0.1), SILENT), loud - LEAST_RANGE);
  return Uint8Array.from(momentary, (_, place) => {
    const lufs = momentaryLufs(momentary[Math.max(0, place - MIDDLE)] ?? 0);
    const share = (lufs - quiet) / (loud - quiet);
    return Math.round(255 * Math.max(0, Math.min(1, share)));
  });
}

/** As it is kept in a programme: base 64. */
export const packEnergy = (energy: Uint8Array): string => {
  let text = '';
  for (const byte of energy) text += String.fromCharCode(byte);
  return btoa(text);
};

export const unpackEnergy = (kept: string): Uint8Array =>
  Uint8Array.from(atob(kept), (letter) => letter.charCodeAt(0));
