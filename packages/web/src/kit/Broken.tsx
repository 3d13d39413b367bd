/** What stands where a part of the interface broke, so that the rest goes on. */
import { Button } from '@mantine/core';
import type { FallbackProps } from 'react-error-boundary';
import { messageOf } from '../desk/say.ts';

export function Broken({ error, resetErrorBoundary }: FallbackProps) {
  return (
    <div className="empty" role="alert">
      <h2>This part stopped working</h2>
      <p>All your work is kept. Try again, or go to another place and come back.</p>
      <p className="quiet">{messageOf(error)}</p>
      <Button variant="filled" onClick={resetErrorBoundary}>
        Try again
      </Button>
    </div>
  );
}
