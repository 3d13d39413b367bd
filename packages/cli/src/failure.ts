/** The two ways in which a command fails. */

/** An input that cannot be used: exit 1. */
export class Unusable extends Error {
  override readonly name = 'Unusable';
  readonly kind: string;
  readonly file: string;
  constructor(kind: string, message: string, file: string) {
    super(message);
    this.kind = kind;
    this.file = file;
  }
}

/** A command that is used wrongly: exit 2. */
export class WrongUsage extends Error {
  override readonly name = 'WrongUsage';
}
