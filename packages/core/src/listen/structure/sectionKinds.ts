/** The kinds of sections that a song has. */

export const SECTION_KINDS = ['intro', 'verse', 'chorus', 'break', 'part', 'ending'] as const;
export type SectionKind = (typeof SECTION_KINDS)[number];
