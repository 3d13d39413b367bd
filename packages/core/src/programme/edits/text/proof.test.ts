import { programmeWithCues } from '../../samples.ts';
import { done } from '../done.samples.ts';
import {
  countAgain,
  languageOf,
  passOver,
  rightEverywhere,
  setLanguage,
  setRightWords,
} from './proof.ts';

describe('proof-reading', () => {
  const ferry = programmeWithCues([]);
  it('keeps a language and the words that are right', () => {
    expect(languageOf(ferry)).toBe('en-GB');
    const american = done(ferry, setLanguage(ferry, 'en-US'));
    const one = done(american, rightEverywhere(american, 'Skerrymoor'));
    const two = done(one, rightEverywhere(one, 'Orran'));
    expect(two.facts.spelling).toEqual({ language: 'en-US', right: ['Orran', 'Skerrymoor'] });
    expect(rightEverywhere(two, 'Orran').changes).toEqual([]);
    const listed = done(two, setRightWords(two, [' winch ', '', 'winch']));
    expect(listed.facts.spelling?.right).toEqual(['winch']);
  });
  it('passes findings over, and counts them again', () => {
    const passed = done(ferry, passOver(ferry, 'spaces|c1|'));
    expect(passed.facts.passedOver).toEqual(['spaces|c1|']);
    expect(passOver(passed, 'spaces|c1|').changes).toEqual([]);
    expect(done(passed, countAgain(passed)).facts.passedOver).toEqual([]);
  });
});
