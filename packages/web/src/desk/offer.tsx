/** A note that stays for a while, with a button that does what it offers. */
import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';

export function offer(message: string, does: string, run: () => void): void {
  notifications.show({
    id: message,
    autoClose: 30_000,
    color: 'gray',
    message: (
      <span>
        {message}{' '}
        <Button
          onClick={() => {
            notifications.hide(message);
            run();
          }}
        >
          {does}
        </Button>
      </span>
    ),
  });
}
