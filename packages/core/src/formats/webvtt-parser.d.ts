declare module 'webvtt-parser' {
  export class WebVTTParser {
    parse(
      source: string,
      mode: 'metadata' | 'captions',
    ): { cues: { startTime: number; endTime: number; text: string }[]; errors: unknown[] };
  }
}
