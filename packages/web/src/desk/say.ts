/** Short sentences to the editor, at the edge of the window. */
import { notifications } from '@mantine/notifications';

export const say = {
  /** @param id  a note with an id takes the place of the one before it */
  note(message: string, id = message): void {
    const note = { id, message, autoClose: 3500, color: 'gray' };
    if (id !== message) notifications.hide(id);
    notifications.show(note);
  },
  problem(message: string): void {
    notifications.show({
      id: message,
      title: 'That did not work',
      message,
      autoClose: 9000,
      color: 'red',
    });
  },
};

/** What an error says, for showing to the editor. */
export const messageOf = (error: unknown): string =>
  error instanceof Error && error.message ? error.message : 'Something went wrong.';
