/** The keys that play, and go from one time to another. */
import { act, hold } from '../../desk/actions.ts';
import { inGroup, inHand, type Key } from './key.ts';

export const PLAY_KEYS: readonly Key[] = [
  ...inGroup('Play', [
    { keys: 'Space', does: 'Play or stop', run: act.togglePlay },
    { keys: 'Shift Space', does: 'Play the cue again', ...inHand(act.playCue, hold.play) },
    {
      keys: 'Enter',
      does: 'Go to the next cue and play it',
      ...inHand(act.goOn, hold.goOn),
    },
    { keys: 'L', does: 'Turn the loop on or off', run: act.toggleLoop },
    { keys: '1', does: 'Half speed', run: () => act.setSpeed(0.5) },
    { keys: '2', does: 'Three-quarter speed', run: () => act.setSpeed(0.75) },
    { keys: '3', does: 'Full speed', run: () => act.setSpeed(1) },
  ]),
  ...inGroup('Move about', [
    { keys: 'Left', does: 'Back a frame', run: () => act.stepFrames(-1) },
    { keys: 'Right', does: 'Forward a frame', run: () => act.stepFrames(1) },
    {
      keys: 'Shift Left',
      does: 'Back ten frames',
      run: () => act.stepFrames(-10),
    },
    {
      keys: 'Shift Right',
      does: 'Forward ten frames',
      run: () => act.stepFrames(10),
    },
    { keys: 'Home', does: 'Go to the start of the cue, or of the programme', run: act.toCueStart },
    { keys: 'End', does: 'Go to the end of the cue, or of the programme', run: act.toCueEnd },
    {
      keys: 'Ctrl Home',
      does: 'Go to the start of the programme',
      run: act.toStart,
    },
    { keys: 'Ctrl End', does: 'Go to the end of the programme', run: act.toEnd },
    {
      keys: 'Up',
      does: 'Go to the cue before',
      ...inHand(act.selectBefore, hold.before),
    },
    {
      keys: 'Down',
      does: 'Go to the next cue',
      ...inHand(act.selectNext, hold.next),
    },
    {
      keys: 'Page Up',
      does: 'Go to the start of the cue, or of the one before',
      run: act.toCueBefore,
    },
    { keys: 'Page Down', does: 'Go to the next cue', run: act.toCueAfter },
  ]),
];
