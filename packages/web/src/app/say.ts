/** Short sentences to the editor, at the edge of the window. */
import { notifications } from '@mantine/notifications';

export const say = {
  note(message: string): void {
    notifications.show({ id: message, message, autoClose: 3500, color: 'gray' });
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
export const wordsOf = (error: unknown): string =>
  error instanceof Error && error.message ? error.message : 'Something went wrong.';
