/** What the editor can do with cues, whichever way it is asked for: by key, button or menu. */
import { closeGaps } from '@cadence/core/programme/edits/cues/closeGaps.ts';
import {
  groupCues,
  ungroupCues,
  wholeGroups,
} from '@cadence/core/programme/edits/cues/groupCues.ts';
import { holdSentence } from '@cadence/core/programme/edits/cues/holdSentence.ts';
import { addCue } from '@cadence/core/programme/edits/cues/addCue.ts';
import { joinCues } from '@cadence/core/programme/edits/cues/joinCues.ts';
import { moveSeam } from '@cadence/core/programme/edits/cues/moveSeam.ts';
import { moveCues } from '@cadence/core/programme/edits/cues/moveCues.ts';
import { cuesFromPieces } from '@cadence/core/programme/edits/found/pieces.ts';
import { emphasise } from '@cadence/core/programme/edits/text/emphasise.ts';
import { deleteCues, setStrandStyle } from '@cadence/core/programme/edits/text/reword.ts';
import { edgeToNearest } from '@cadence/core/programme/edits/cues/snapEdges.ts';
import { splitCue } from '@cadence/core/programme/edits/cues/splitCue.ts';
import { stretchCues } from '@cadence/core/programme/edits/cues/stretchCues.ts';
import { trimToVoice } from '@cadence/core/programme/edits/cues/trimToVoice.ts';
import { trimCue, type Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { SAID_COLOUR } from '@cadence/core/programme/defaults.ts';
import { marksInOrder, neighbours, placeOf } from '@cadence/core/programme/order.ts';
import { tieEdges } from '@cadence/core/programme/ties.ts';
import type { Cue, Id, Standing } from '@cadence/core/programme/programme.ts';
import { frameAt, frameLength, frames } from '@cadence/core/time/frameRate.ts';
import { firstEndingAfter } from '@cadence/core/time/range.ts';
import { add, fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { cuesInHand, selectedCues, strandInHand } from './inHand.ts';
import type { DeskPorts } from './ports.ts';
import { looked, ROW_SPANS, selected } from './view.ts';

/** The longest gap that is closed, and the length of a new cue. */
const SMALL_GAP = fromSeconds(0.5);
const NEW_CUE = fromSeconds(2);
/** Frames that a cue stays after the voice ends. */
const TAIL = 3;
/** So many fonts that were used last are remembered. */
const MOST_RECENT = 6;

export function cueActions(desk: DeskPorts) {
  const { player, make, newId, note, dispatch, undo, redo } = desk;
  const cues = () => cuesInHand(desk.programme(), desk.view());
  const strand = () => strandInHand(desk.programme(), desk.view());
  const selection = () => selectedCues(desk.programme(), desk.view());

  /** The cue worked on: the last of the selection, else the one under the playhead. */
  function currentCue(): Cue | undefined {
    const chosen = selection().at(-1);
    if (chosen) return chosen;
    const row = cues();
    const at = row[firstEndingAfter(row, player.time)];
    return at && at.start <= player.time ? at : undefined;
  }

  function withCue(work: (cue: Cue) => void): void {
    const cue = currentCue();
    if (cue) work(cue);
    else note('Select a cue first.');
  }

  function withSelection(work: (ids: Id[]) => void): void {
    const chosen = selection();
    const ids = (
      chosen.length > 0 ? chosen : [currentCue()].filter((cue) => cue !== undefined)
    ).map((cue) => cue.id);
    if (ids.length > 0) work(ids);
    else note('Select a cue first.');
  }

  const select = (...ids: Id[]): void => void dispatch(selected(ids));

  /** Selects a cue and takes the playhead to its start. */
  function goTo(cue: Cue | undefined): void {
    if (!cue) return;
    select(cue.id);
    player.seek(cue.start);
  }

  /** Selects the cue `by` places from the current one; with `extend`, adds it to the selection. */
  function step(by: 1 | -1, extend = false): void {
    const row = cues();
    if (row.length === 0) return;
    // With nothing selected, it starts from where the playhead stands.
    const current = selection().at(-1);
    const near = firstEndingAfter(row, player.time);
    const place = current ? placeOf(row, current) + by : by > 0 ? near : near - 1;
    const cue = row[Math.max(0, Math.min(row.length - 1, place))];
    if (!cue) return;
    const { selection: before } = desk.view();
    if (extend) select(...before.filter((id) => id !== cue.id), cue.id);
    else goTo(cue);
  }

  function nudge(count: number): void {
    const rate = desk.programme().facts.frameRate;
    withSelection((ids) => make(moveCues(desk.programme(), ids, frames(count, rate))));
  }

  const programmeCue = (id: Id | undefined): Cue | undefined =>
    id === undefined ? undefined : desk.programme().cues[id];

  return {
    undo,
    redo,
    togglePlay: () => player.toggle(),
    setSpeed: (speed: number) => {
      player.setSpeed(speed);
      dispatch(looked({ speed }));
    },
    toggleLoop: () => {
      const loop = !desk.view().loop;
      player.setLooping(loop);
      dispatch(looked({ loop }));
    },
    toggleSnap: () => dispatch(looked({ snap: !desk.view().snap })),
    toggleScrub: () => {
      const scrub = !desk.view().scrub;
      dispatch(looked({ scrub }));
      note(scrub ? 'Sound while dragging: on.' : 'Sound while dragging: off.');
    },
    toggleClicks: () => {
      const clicks = !desk.view().clicks;
      dispatch(looked({ clicks }));
      note(clicks ? 'Clicks: on.' : 'Clicks: off.');
    },
    /** Pulls the edge of the current cue that is nearer to the playhead to the nearest mark. */
    edgeToMark: () =>
      withCue((cue) => {
        const programme = desk.programme();
        const nearStart = Math.abs(player.time - cue.start) <= Math.abs(player.time - cue.end);
        const marks = marksInOrder(programme).map(({ at }) => at);
        make(edgeToNearest(programme, cue.id, nearStart ? 'start' : 'end', marks));
      }),
    /** Gives the spoken word a colour of its own in the strand in hand, or the colour of the others. */
    toggleLight: () => {
      const inHand = desk.programme().strands[strand()];
      if (!inHand) return;
      const { id, style, title } = inHand;
      const saidColour = style.saidColour ? null : SAID_COLOUR;
      make(setStrandStyle(desk.programme(), id, { saidColour }));
      note(
        saidColour
          ? `“${title}”: the spoken word is highlighted.`
          : `“${title}”: the spoken word is not highlighted.`,
      );
    },
    toggleBeside: () => dispatch(looked({ beside: !desk.view().beside })),
    favouriteFont: (family: string) => {
      const { favourites, recent } = desk.view().fonts;
      const others = favourites.filter((each) => each !== family);
      const kept = others.length < favourites.length ? others : [...favourites, family];
      dispatch(looked({ fonts: { favourites: kept, recent } }));
    },
    usedFont: (family: string) => {
      const { favourites, recent } = desk.view().fonts;
      const last = [family, ...recent.filter((each) => each !== family)].slice(0, MOST_RECENT);
      dispatch(looked({ fonts: { favourites, recent: last } }));
    },
    setSafeBy: (safeBy: string) => dispatch(looked({ safeBy, safeArea: true })),
    toggleSafeArea: () => dispatch(looked({ safeArea: !desk.view().safeArea })),

    /** Moves the playhead by whole frames. */
    stepFrames: (count: number) => {
      const { frameRate, length } = desk.programme().facts;
      player.pause();
      // Half a frame of grace: a seek lands near a frame's edge, not on it.
      const near = (player.time + frameLength(frameRate) / 4) as Ticks;
      const frame = Math.max(0, frameAt(near, frameRate) + count);
      player.seek(Math.min(length, frames(frame, frameRate)) as Ticks);
    },
    toStart: () => player.seek(ZERO),
    toEnd: () => player.seek(desk.programme().facts.length),
    toCueStart: () => player.seek(currentCue()?.start ?? ZERO),
    toCueEnd: () => player.seek(currentCue()?.end ?? desk.programme().facts.length),
    toCueBefore: () => {
      const cue = currentCue();
      if (cue && player.time > cue.start + fromSeconds(0.2)) player.seek(cue.start);
      else step(-1);
    },
    toCueAfter: () => step(1),
    selectNext: () => step(1),
    selectBefore: () => step(-1),
    extendNext: () => step(1, true),
    extendBefore: () => step(-1, true),
    selectAll: () => select(...cues().map((cue) => cue.id)),
    selectNone: () => select(),
    playCue: () => withCue((cue) => player.play(cue)),
    /** Selects the next cue and plays it. */
    goOn: () => {
      step(1);
      withCue((cue) => player.play(cue));
    },

    addCue: () => {
      const programme = desk.programme();
      const start = player.time;
      const edit = addCue(programme, strand(), { start, end: add(start, NEW_CUE) }, '', newId);
      const [made] = edit.changes;
      if (!make(edit) || !made) return;
      select(made.id);
      // Nobody writes while it plays: the next cue is made then.
      if (!player.state().playing) desk.write(made.id);
    },
    trim: (edge: Edge) =>
      withCue((cue) => {
        const programme = desk.programme();
        const { before, after } = neighbours(programme, cue);
        // Where two cues touch, the edge is a seam, and both follow.
        if (edge === 'start' && before?.end === cue.start)
          make(moveSeam(programme, before.id, cue.id, player.time));
        else if (edge === 'end' && after?.start === cue.end)
          make(moveSeam(programme, cue.id, after.id, player.time));
        else make(trimCue(programme, cue.id, edge, player.time));
      }),
    split: (place?: number) =>
      withCue((cue) => {
        const edit = splitCue(desk.programme(), cue.id, player.time, newId, place);
        const rest = edit.changes.find((change) => change.was === null);
        if (make(edit) && rest) select(rest.id);
      }),
    join: () => {
      const chosen = selection();
      const programme = desk.programme();
      if (chosen.length > 1) {
        const first = [...chosen].sort((a, b) => a.start - b.start)[0];
        if (
          make(
            joinCues(
              programme,
              chosen.map((cue) => cue.id),
            ),
          ) &&
          first
        )
          select(first.id);
        return;
      }
      withCue((cue) => {
        const row = cues();
        const next = row[placeOf(row, cue) + 1];
        make(joinCues(programme, next ? [cue.id, next.id] : [cue.id]));
      });
    },
    remove: () =>
      withSelection((ids) => {
        const row = cues();
        const last = programmeCue(ids.at(-1));
        const after = last && row[placeOf(row, last) + 1];
        if (make(deleteCues(desk.programme(), ids)))
          select(...(after && !ids.includes(after.id) ? [after.id] : []));
      }),
    nudge,
    toggleItalic: () =>
      withSelection((ids) => {
        const places = ids.map((cue) => ({ cue }));
        make(emphasise(desk.programme(), places, 'italic'));
      }),
    closeGaps: () => {
      const programme = desk.programme();
      const chosen = selection();
      const among = chosen.length > 1 ? chosen.map((cue) => cue.id) : undefined;
      make(closeGaps(programme, strand(), SMALL_GAP, among));
    },
    /** Each selected cue stays until the next begins, however long that is. */
    holdCues: () =>
      withSelection((ids) => {
        const programme = desk.programme();
        const edit = closeGaps(programme, strand(), programme.facts.length, ids);
        make(edit.note ? { ...edit, note: 'Each cue already lasts until the next.' } : edit);
      }),
    /** Each selected cue stays until its sentence has ended, so that it builds up. */
    group: (standing: Standing) =>
      withSelection((ids) =>
        make(groupCues(desk.programme(), wholeGroups(desk.programme(), ids), standing, newId)),
      ),
    ungroup: () => withSelection((ids) => make(ungroupCues(desk.programme(), ids))),
    holdSentence: () => withSelection((ids) => make(holdSentence(desk.programme(), ids))),
    /** The selected cues together begin or end at the playhead; what is between goes along in proportion. */
    stretch: (edge: Edge) =>
      withSelection((ids) => make(stretchCues(desk.programme(), ids, edge, player.time))),
    /** Ties the edges of the selected cues to their words as they stand, or sets them free where all are tied. */
    tieOrFree: () =>
      withSelection((ids) => {
        const programme = desk.programme();
        const tie = ids.some((id) => !programme.cues[id]?.startTie || !programme.cues[id].endTie)
          ? ({ to: 'word' } as const)
          : null;
        const timed = ids.some((id) => (programme.cues[id]?.words.length ?? 0) > 0);
        if (tie && !timed) note('The words here have no times yet. Weave them first (Z).');
        else make(tieEdges(programme, ids, { start: tie, end: tie }));
      }),
    /** The selected cues end with the voice, and a few frames after it. */
    trimToVoice: () =>
      withSelection((ids) => {
        const programme = desk.programme();
        make(trimToVoice(programme, strand(), ids, TAIL));
      }),
    /** Selects the current cue and every one before or after it. */
    selectFromHere: (towards: Edge) =>
      withCue((cue) => {
        const row = cues();
        const place = placeOf(row, cue);
        const some = towards === 'end' ? row.slice(place) : row.slice(0, place + 1);
        select(...some.map(({ id }) => id));
      }),
    makeCues: () => {
      const programme = desk.programme();
      make(cuesFromPieces(programme, strand(), newId));
    },

    setRow: (secondsARow: number) => dispatch(looked({ secondsARow })),
    widerRow: (by: 1 | -1) => {
      const now = ROW_SPANS.findIndex((span) => span === desk.view().secondsARow);
      const next = ROW_SPANS[Math.max(0, Math.min(ROW_SPANS.length - 1, now + by))];
      if (next !== undefined) dispatch(looked({ secondsARow: next }));
    },
  };
}
