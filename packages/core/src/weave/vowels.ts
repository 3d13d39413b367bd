/** The vowels among the sounds of the acoustic model, by their names in it. */
export const VOWELS = new Set('AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW'.split(' '));
