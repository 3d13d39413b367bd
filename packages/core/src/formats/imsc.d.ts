/** The parts of the reader `imsc` that tests compare with; its drawing part needs a window. */
interface ImscNode {
  readonly kind?: string;
  readonly text?: string;
  readonly contents?: readonly ImscNode[];
}
interface ImscHandler {
  info(message: string): void;
  warn(message: string): boolean;
  error(message: string): boolean;
  fatal(message: string): boolean;
}
interface ImscDocument {
  getMediaTimeEvents(): number[];
}
declare module 'imsc/src/main/js/doc.js' {
  export function fromXML(text: string, handler: ImscHandler): ImscDocument;
}
declare module 'imsc/src/main/js/isd.js' {
  export function generateISD(document: ImscDocument, at: number, handler: ImscHandler): ImscNode;
}
