/**
 * "The Ferry at Skerrymoor", a narrated short. All of it is made up.
 *
 * Each phrase and the pause after it in seconds. `|` is where its subtitle breaks into two lines.
 */
export const NARRATION: readonly (readonly [phrase: string, pause: number])[] = [
  ['The ferry at Skerrymoor has no engine of its own.', 0.7],
  ['It pulls itself along a chain,', 0.4],
  ['from one bank of the Orran|to the other, and back.', 1.2],
  ['Somebody has to oil the bell.', 0.9],
  ['Every morning at a quarter to six|the ferry wakes before the village does.', 0.8],
  ['You hear the winch first,', 0.4],
  ['then the gulls complaining about the winch.', 1.1],
  ['My grandmother took the fares from here.', 0.6],
  ['A penny for a person, two for a bicycle,', 0.45],
  ['and nothing at all for a dog|that could swim.', 1.3],
  ['The chain has lain in the mud|since the winter before last.', 0.8],
  ['We mean to lift it in March,', 0.4],
  ['if the river lets us.', 1.2],
  ['There are eleven of us now,', 0.45],
  ['and a great deal of grease.', 1.0],
  ['Nobody has steered her since my father,', 0.5],
  ['and he says she still knows the way.', 1.3],
  ['The Harbour Board has written to us twice.', 0.7],
  ['The first letter was polite.', 0.9],
  ['The second one gave a date.', 1.4],
  ['So this is the last winter, they tell us,', 0.5],
  ['unless somebody finds four hundred links of chain.', 1.0],
  ['Isla found the first ninety|under a tarpaulin at Brae End.', 0.8],
  ['Tam found sixty more|holding up a garden fence.', 0.9],
  ['He has asked the owner of the fence.', 0.6],
  ['The owner of the fence is thinking about it.', 1.4],
  ['In the afternoons we scrape,', 0.45],
  ['and in the evenings we count.', 1.0],
  ['Two hundred and forty links, at the last count.', 1.1],
  ['Slack water comes a little after four.', 0.6],
  ['For eleven minutes the river|makes up its mind,', 0.5],
  ['and anything will float across.', 1.3],
  ['That is when she likes to go.', 0.9],
  ['The tide turns at the sluice,', 0.45],
  ['and the whole boat sighs.', 1.2],
  ['Listen.', 1.6],
  ['You can hear the chain take up the weight.', 1.0],
  ['We are not asking for a new ferry.', 0.5],
  ['We are asking for the rest of the old one.', 1.8],
];

/** The first phrases are typed in the demo; the others wait to be heard. */
export const TYPED = 20;
