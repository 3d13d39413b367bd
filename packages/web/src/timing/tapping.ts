/**
 * Tapping along: while the programme plays, each press of a key is one mark, cue, word, line or beat, and
 * holding it gives the length. When playing stops, the taps are put on what they were meant for.
 */
import {
  editOfTaps,
  TAPS,
  tapsOfPresses,
  type Press,
} from '@cadence/core/programme/edits/words/taps.ts';
import { tapLines } from '@cadence/core/programme/edits/words/tapLines.ts';
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import { roomAround, unsureAround } from '@cadence/core/programme/woven/unsure.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import type { Range } from '@cadence/core/time/range.ts';
import {
  add,
  fromSeconds,
  later,
  subtract,
  toSeconds,
  ZERO,
  type Ticks,
} from '@cadence/core/time/ticks.ts';
import { make, newId } from '../desk/desk.ts';
import { pulseMaterial } from '../desk/actions.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { say } from '../desk/say.ts';
import { currentCues, currentStrand, openNow, selectionNow, store } from '../desk/store.ts';
import { isTaken } from '../kit/keyStrokes.ts';
import { looked, selected } from '../desk/view.ts';
import { heardIn, heardNow } from '../listening/heard.ts';
import { player } from '../playback/player.ts';

/** A key that is down longer than this was held, in seconds. */
const HELD = 0.22;

/** How much is heard before and after where a line can be. */
const BEFORE_LINE = fromSeconds(1);
const AFTER_LINE = fromSeconds(0.5);

/** A press while the key may still be down. */
type Pressed = { -readonly [Field in keyof Press]: Press[Field] };

class Tapping {
  #taps: Pressed[] = [];
  #down: Pressed | null = null;
  #last: Range | null = null;
  #first: Cue | undefined;
  #watching = false;
  /** The lines that are not sure of which one is being heard, in order; none where taps are for what the editor chose. */
  #lines: readonly Id[] = [];

  /** Answers the key while a programme is open. */
  listen(): () => void {
    const down = (event: KeyboardEvent) => {
      if (event.key !== ';' || event.ctrlKey || event.metaKey || event.altKey || isTaken(event))
        return;
      event.preventDefault();
      if (!event.repeat) this.press();
    };
    const up = (event: KeyboardEvent) => {
      if (event.key === ';') this.release();
    };
    document.addEventListener('keydown', down);
    document.addEventListener('keyup', up);
    return () => {
      document.removeEventListener('keydown', down);
      document.removeEventListener('keyup', up);
    };
  }

  press(): void {
    if (!player.state().playing) {
      player.play();
      this.#say('Tap with ; as it plays. Stop to keep the taps.');
      this.#begin();
      return;
    }
    this.#begin();
    this.#down = { at: toSeconds(player.time), until: null };
    this.#taps.push(this.#down);
    this.#say(
      this.#lines.length > 0
        ? `${plural(this.#taps.length, 'line')} of ${this.#lines.length} tapped.`
        : `${plural(this.#taps.length, 'tap')} for ${store.getState().view.tapFor}.`,
    );
  }

  /**
   * Plays all of where a line of which weaving is not sure can be, up to the next that it is sure of; a tap is for where the
   * line begins, the next ones are for the lines after it that are not sure either.
   */
  hearLine(id: Id): void {
    const { programme } = openNow();
    const around = unsureAround(programme, id);
    const lines = around.slice(around.findIndex((cue) => cue.id === id)).map((cue) => cue.id);
    const room = roomAround(programme, around[0]?.id ?? id);
    player.pause();
    this.#begin();
    this.#lines = lines;
    player.play({
      start: later(ZERO, subtract(room.start, BEFORE_LINE)),
      end: add(room.end, AFTER_LINE),
    });
    const text = plainText(programme.cues[id]?.text ?? []).replace(/\s+/g, ' ');
    this.#say(`Tap ; where “${text}” begins.`);
  }

  /** Whether what is playing is to be tapped for a line that is not sure. */
  readonly hearsLine = (): boolean => this.#lines.length > 0 && player.state().playing;

  release(): void {
    if (!this.#down) return;
    const now = toSeconds(player.time);
    if (now - this.#down.at >= HELD * player.state().speed) this.#down.until = now;
    this.#down = null;
    // The last line has its tap: what comes of it is heard at once.
    if (this.#lines.length > 0 && this.#taps.length >= this.#lines.length) player.pause();
  }

  readonly takeBack = (): void => {
    if (this.#taps.pop())
      this.#say(`The last tap was undone. ${plural(this.#taps.length, 'tap')} left.`);
  };

  readonly nextKind = (): void => {
    const { tapFor } = store.getState().view;
    const next = TAPS[(TAPS.indexOf(tapFor) + 1) % TAPS.length] ?? 'marks';
    store.dispatch(looked({ tapFor: next }));
    say.note(`Now tapping ${next}.`);
  };

  /** Plays the stretch that was tapped last, with clicks. */
  readonly playBack = (): void => {
    if (!this.#last) {
      say.note('Nothing was tapped yet.');
      return;
    }
    store.dispatch(looked({ clicks: true }));
    player.play(this.#last);
  };

  #begin(): void {
    if (this.#watching) return;
    this.#watching = true;
    this.#taps = [];
    this.#lines = [];
    this.#first = firstCue();
    // What was heard is to be at hand when playing stops.
    const hash = mainHash(openNow().programme);
    if (hash !== undefined) void heardIn(hash);
    const stop = player.watch(() => {
      if (player.state().playing) return;
      stop();
      this.#watching = false;
      this.release();
      if (this.#taps.length > 0) this.#keep(this.#taps);
      this.#lines = [];
    });
  }

  /** Keeps the taps at once, so that leaving the programme loses none. */
  #keep(presses: readonly Press[]): void {
    const { programme } = openNow();
    const evidence = heardNow(mainHash(programme) ?? '')?.pulse;
    const { delay, taps: meant } = tapsOfPresses(
      programme,
      presses,
      evidence,
      player.state().speed,
    );
    const { tapFor } = store.getState().view;
    const to = {
      strand: currentStrand(programme),
      firstCue: this.#first?.id,
      beatsOf: pulseMaterial(programme),
    };
    const [line] = this.#lines;
    const edit =
      line === undefined
        ? editOfTaps(programme, tapFor, meant, to, newId)
        : tapLines(programme, line, meant);
    const [first, last] = [meant[0], meant.at(-1)];
    if (first && last)
      this.#last = {
        start: Math.max(0, first.at - fromSeconds(1)) as Ticks,
        end: add(last.until ?? last.at, fromSeconds(1)),
      };
    if (make(edit) && !edit.note)
      say.note(
        `${edit.name}: ${Math.round(delay * 1000)} ms of delay removed. Shift T plays the taps back with clicks.`,
      );
    if (this.#first && (line !== undefined || tapFor !== 'marks'))
      store.dispatch(selected([this.#first.id]));
  }

  #say(text: string): void {
    say.note(text, 'tapping');
  }
}

/** The cue that the first tap is for: the selected one, else the next after the playhead. */
function firstCue(): Cue | undefined {
  const { programme } = openNow();
  const { time } = player;
  return selectionNow()[0] ?? currentCues(programme).find((cue) => cue.end > time);
}

/** The content of the main sound. */
const mainHash = ({ facts, materials }: Programme): string | undefined =>
  materials[facts.sound ?? '']?.hash;

export const tapping = new Tapping();
