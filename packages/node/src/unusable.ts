/** A file that cannot be used for what it was given for. */
export class Unusable extends Error {
  override readonly name = 'Unusable';
  /** Names what is wrong, such as `missing`. */
  readonly kind: string;
  readonly file: string;
  constructor(kind: string, message: string, file: string) {
    super(message);
    this.kind = kind;
    this.file = file;
  }
}
