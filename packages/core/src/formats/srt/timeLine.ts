/** The line of times of an SRT cue: `00:00:01,000 --> 00:00:02,000`, as people's files have it. */
export const TIME_LINE =
  /^\s*(?:(\d{1,4}):)?(\d{1,2}):(\d{1,2})(?:[,.:](\d{1,6}))?\s*-{1,2}>\s*(?:(\d{1,4}):)?(\d{1,2}):(\d{1,2})(?:[,.:](\d{1,6}))?(?:\s.*)?$/;
