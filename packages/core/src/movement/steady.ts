/**
 * A number as every engine has it: exponentials, sines and powers differ in their last bit between versions of the same
 * engine, and so would single pixels of what is placed by them.
 */
const STEPS = 2 ** 30;
export const steady = (value: number): number => Math.round(value * STEPS) / STEPS;
