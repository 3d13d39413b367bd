/** Patterns: the shelf, the picture with the draft of a cue under it, and the inspector. */
import { Button, Tooltip } from '@mantine/core';
import { useEffect, useState } from 'react';
import { STILL } from '@cadence/core/movement/movement.ts';
import { movementOf, patternOf, styleOf } from '@cadence/core/programme/patterns.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { act } from '../desk/actions.ts';
import type { Line } from '@cadence/core/text/lines.ts';
import { useApp, useShown } from '../desk/store.ts';
import { messageOf, say } from '../desk/say.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { stage } from '../picture/studio.ts';
import { Transport } from '../picture/Transport.tsx';
import { Draft } from './Draft.tsx';
import { useInHand } from './inHand.ts';
import { Inspector } from './Inspector.tsx';
import { lookEdit, movementEdit, patternActions, type Scope } from './patternActions.ts';
import { Shelf } from './Shelf.tsx';
import classes from './PatternsPlace.module.css';

/** Fetches the letters of every pattern, and of a text; counts up as they come. */
function useFonts(
  { materials }: Programme,
  families: readonly string[],
  text: readonly Line[] | undefined,
): number {
  const [count, setCount] = useState(0);
  const wanted = families.join('\n');
  useEffect(() => {
    let stale = false;
    const fetch = async () => {
      await stage.ownFonts({ materials });
      for (const family of wanted.split('\n'))
        if (family !== '') await stage.shelf.prepare(family, text ?? []);
      if (!stale) setCount((before) => before + 1);
    };
    fetch().catch((error: unknown) => say.problem(`Fonts were not loaded: ${messageOf(error)}`));
    return () => {
      stale = true;
    };
  }, [wanted, materials, text]);
  return count;
}

export default function PatternsPlace() {
  const programme = useShown((shown) => shown);
  const [chosen, choose] = useState<Id | null>(null);
  const [scope, setScope] = useState<Scope>('pattern');
  const beside = useApp((state) => state.view.beside);
  const selection = useApp((state) => state.view.selection);
  const { patterns, pattern, cue } = useInHand(chosen);
  const fonts = useFonts(
    programme,
    [
      ...new Set([
        ...(cue ? [styleOf(programme, cue).family] : []),
        ...patterns.flatMap(({ look }) => look.family ?? []),
      ]),
    ].sort(),
    cue?.text,
  );
  const movement = cue ? movementOf(programme, cue, styleOf(programme, cue).fade ?? 0) : undefined;
  const worn = cue && patternOf(programme, cue);
  const nudge = (by: number) => worn && patternActions.nudge(worn, scope, movement ?? STILL, by);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey) return;
      const done = {
        Comma: () => nudge(1),
        Period: () => nudge(-1),
        KeyP: () => patternActions.toStrand(pattern),
      }[event.code];
      if (!done) return;
      event.preventDefault();
      done();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  return (
    <main className="place">
      <section className={classes.left} aria-label="Shelf of patterns">
        <Shelf {...{ patterns, pattern, cue, fonts, choose }} />
      </section>
      <section className={classes.middle} aria-label="Picture and draft">
        <PictureView
          hands={{
            cue,
            change: (of, part) => {
              // What is put for the cue alone is seen in the inspector.
              if (!worn && selection.includes(of.id)) setScope('cues');
              return lookEdit(worn, scope, of, part);
            },
          }}
        />
        <div className={classes.transport} data-keys tabIndex={-1}>
          <Transport>
            <Tooltip label="Show the text of the frames before and after, faint (Shift A)">
              <Button
                aria-pressed={beside}
                variant={beside ? 'filled' : 'default'}
                onClick={act.toggleBeside}
              >
                Frame before and after
              </Button>
            </Tooltip>
          </Transport>
        </div>
        {cue && fonts > 0 ? (
          <Draft
            {...{ programme, cue, nudge }}
            movement={movement ?? STILL}
            change={worn && ((part) => movementEdit(worn, scope, part))}
          />
        ) : (
          <p className="empty">
            {cue ? 'Loading fonts …' : 'There is no text on this strand yet. Write some in Words.'}
          </p>
        )}
      </section>
      <aside className={classes.right} aria-label="Inspector">
        <Inspector {...{ pattern, cue, scope, setScope, choose }} />
      </aside>
    </main>
  );
}
