/** Opens the list of commands, which is loaded with its first opening. */

let open: () => void = () => undefined;

/** Says who shows the list; called by the shell. */
export function showCommandsWith(shows: () => void): void {
  open = shows;
}

export const showCommands = (): void => open();
