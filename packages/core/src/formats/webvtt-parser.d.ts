declare module 'webvtt-parser' {
  interface Parser {
    parse(
      source: string,
      mode: 'metadata' | 'captions',
    ): { cues: { startTime: number; endTime: number; text: string }[]; errors: unknown[] };
  }
  const exported: { WebVTTParser: new () => Parser };
  export default exported;
}
