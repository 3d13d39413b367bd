/** What is said where something is wrong with the state on the server, and what can be done then. */
import { Button } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { whereOlder } from '../desk/desk.ts';
import { say, messageOf } from '../desk/say.ts';
import { useOpen } from '../desk/store.ts';

export function OlderOnServer() {
  const older = useOpen((open) => open.olderOnServer);
  const version = useOpen((open) => open.version);
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();
  if (older === null) return null;
  const run = (work: () => Promise<void>) => {
    setBusy(true);
    work()
      .catch((error: unknown) => say.problem(messageOf(error)))
      .finally(() => setBusy(false));
  };
  return (
    <div className="notice older" role="alert">
      <IconAlertTriangle size={18} />
      <span>
        The server has an older state of this programme: version {older}, and this window has
        version {version}. Its data was probably restored from a copy. Nothing is saved until you
        choose.
      </span>
      <Button disabled={busy} variant="filled" onClick={() => run(whereOlder.putOnTop)}>
        Save this window’s state
      </Button>
      <Button
        disabled={busy}
        onClick={() =>
          run(async () => {
            const id = await whereOlder.keepBeside();
            await navigate(`/p/${id}/material`);
          })
        }
      >
        Save it as a new programme
      </Button>
    </div>
  );
}

/** What of the programme the server could not read. */
export function Damage() {
  const damage = useOpen((open) => open.damage);
  const [seen, setSeen] = useState<readonly string[]>();
  if (damage.length === 0 || seen === damage) return null;
  return (
    <div className="notice older" role="alert">
      <IconAlertTriangle size={18} />
      <span>Part of this programme is damaged. {damage.join(' ')} Everything else is here.</span>
      <Button onClick={() => setSeen(damage)}>Dismiss</Button>
    </div>
  );
}
