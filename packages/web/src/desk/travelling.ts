/** Making what travels from other places than Travel. The shell, which knows that place, does it. */
import type { TravellingKind } from '@cadence/core/programme/programme.ts';

type MakeTravelling = (kind: TravellingKind, file?: File) => Promise<void>;
let maker: MakeTravelling = () => Promise.resolve();

/** Says who makes what travels; called by the shell. */
export function makeTravellingWith(makes: MakeTravelling): void {
  maker = makes;
}

/**
 * Makes a roll or a crawl, of the text of a file where there is one, and goes to it.
 *
 * @throws Unreadable where there is no text in the file
 */
export const makeTravelling: MakeTravelling = (kind, file) => maker(kind, file);
