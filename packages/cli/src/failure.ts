/** A command that is used wrongly: exit 2. */
export class WrongUsage extends Error {
  override readonly name = 'WrongUsage';
}
