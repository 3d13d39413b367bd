/** Where sentences end. */

/** Whether a text ends a sentence: with its mark, and the quotes and brackets that close behind it. */
export const endsSentence = (text: string): boolean => /[.?!…]["”’')\]]*$/.test(text);
