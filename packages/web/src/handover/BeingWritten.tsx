/** What is being written, and what was: progress, and the files that are kept here. */
import { ActionIcon, Button, Progress, Tooltip } from '@mantine/core';
import { IconAlertTriangle, IconCheck, IconClock, IconServer2, IconX } from '@tabler/icons-react';
import { useEffect, useRef } from 'react';
import { toSeconds, fromSeconds } from '@cadence/core/time/ticks.ts';
import {
  SOUND_SHARE,
  type Job as AnyJob,
  type Sending,
  type ServerJob,
  type WritingProgress,
} from '@cadence/film/write/job.ts';
import { instantOf, frameCount } from '@cadence/film/write/order.ts';
import { jobFileUrl, server } from '../sync/api.ts';
import { formatBytes, formatLength, formatLevel } from '../kit/format.ts';
import { save } from '../kit/save.ts';
import { messageOf, say } from '../desk/say.ts';
import { jobs, type Going, type Job } from '../writing/jobs.ts';
import { useJobs, useServerJobs } from '../writing/useJobs.ts';
import classes from './HandoverPlace.module.css';

// Whatever place the editor is in when it is done.
jobs.whenDone = (job) => {
  if (!job.own) void keep(job);
};

/** A job as a card shows it, wherever it is written. */
interface Shown {
  readonly job: AnyJob;
  readonly going: WritingProgress | undefined;
  readonly picture?: ImageBitmap | undefined;
  /** Where it is written, if not in this browser. */
  readonly where?: string;
  readonly pause: () => Promise<unknown>;
  readonly goOn: () => Promise<unknown>;
  readonly remove: () => Promise<unknown>;
  readonly send: () => Promise<unknown>;
  /** Gives the editor the file; undefined where it went into one of the editor's choice. */
  readonly keep: (() => void) | undefined;
}

const hereShown = (job: Job, going: Going | null): Shown => ({
  job,
  going: going?.job === job.id ? going : undefined,
  picture: going?.job === job.id ? going.picture : undefined,
  pause: () => jobs.pause(job.id),
  goOn: () => jobs.goOn(job.id),
  remove: () => jobs.remove(job.id),
  send: () => jobs.send(job.id),
  keep: job.own ? undefined : () => void keep(job),
});

const serverShown = (job: ServerJob): Shown => ({
  job,
  going: job.progress,
  where: 'on the server',
  pause: () => server.pauseJob(job.id),
  goOn: () => server.goOnJob(job.id),
  remove: () => server.removeJob(job.id),
  send: () => server.sendJob(job.id),
  keep: () => save(jobFileUrl(job.id), job.name),
});

/** What is still in the line comes first, as it was asked for; then what is done, the newest first. */
function inSight({ job: a }: Shown, { job: b }: Shown): number {
  const isDone = ({ state }: AnyJob) => Number(state === 'done');
  return isDone(a) - isDone(b) || (isDone(a) ? b.asked - a.asked : a.asked - b.asked);
}

export function BeingWritten() {
  const { jobs: here, going } = useJobs();
  const there = useServerJobs();
  const all = [...here.map((job) => hereShown(job, going)), ...there.map(serverShown)];
  all.sort(inSight);
  if (all.length === 0) return null;
  return (
    <section aria-label="Being written" className={classes.line}>
      <h2>Being written</h2>
      {all.map((shown) => (
        <JobCard key={shown.job.id} {...shown} />
      ))}
    </section>
  );
}

/** Does what a button asks for; says why where it cannot be done. */
const attempt = (work: () => Promise<unknown>) => () =>
  void work().catch((error: unknown) => say.problem(messageOf(error)));

function JobCard({ job, going, picture, where, pause, goOn, remove, send, keep: give }: Shown) {
  const { name, state, sending } = job;
  return (
    <div className={`card ${classes.job}`}>
      {state === 'done' && <IconCheck size={20} color="var(--woad)" aria-label="Done" />}
      {state === 'failed' && (
        <IconAlertTriangle size={20} color="var(--alarm)" aria-label="Failed" />
      )}
      {(state === 'waiting' || state === 'paused') && <IconClock size={20} color="var(--slate)" />}
      {state === 'writing' &&
        (where ? <IconServer2 size={20} color="var(--slate)" /> : <Small picture={picture} />)}
      <span>
        <b title={name}>{name}</b>
        <small className="quiet">{sentenceOf(job, going, where)}</small>
        {sending && (
          <small className={sending.state === 'failed' ? classes.warn : 'quiet'} role="status">
            {sendingOf(sending)}
          </small>
        )}
      </span>
      <span className={classes.doing}>
        {(state === 'writing' || state === 'waiting') && (
          <Button onClick={attempt(pause)}>Pause</Button>
        )}
        {(state === 'paused' || state === 'failed') && (
          <Button onClick={attempt(goOn)}>{state === 'paused' ? 'Go on' : 'Try again'}</Button>
        )}
        {state === 'done' && give && (
          <Button onClick={give}>{where ? 'Save' : 'Save again'}</Button>
        )}
        {state === 'done' && (!sending || sending.state === 'failed') && (
          <Tooltip label="To the outside host of films">
            <Button onClick={attempt(send)}>{sending ? 'Send on' : 'Send'}</Button>
          </Tooltip>
        )}
        {state === 'done' ? (
          <Tooltip label="Take off the list; what you saved stays">
            <ActionIcon aria-label={`Take ${name} off the list`} onClick={attempt(remove)}>
              <IconX size={17} />
            </ActionIcon>
          </Tooltip>
        ) : (
          <Button onClick={attempt(remove)}>Stop</Button>
        )}
      </span>
      {state === 'writing' && (
        <Progress
          className={classes.share ?? ''}
          value={100 * (going?.share ?? 0)}
          aria-label={`Progress of ${name}`}
        />
      )}
    </div>
  );
}

/** The frame that was drawn last. */
function Small({ picture }: { picture: ImageBitmap | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!picture || !canvas.current) return;
    canvas.current.width = picture.width;
    canvas.current.height = picture.height;
    canvas.current.getContext('2d')?.drawImage(picture, 0, 0);
  }, [picture]);
  return <canvas ref={canvas} className={classes.small} aria-hidden />;
}

const isRight = ({ written }: AnyJob): boolean => (written?.faults.length ?? 0) === 0;

/** What is said of a job. */
function sentenceOf(
  job: AnyJob,
  going: WritingProgress | undefined,
  where: string | undefined,
): string {
  const capital = (text: string) => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`;
  const placed = (text: string) => capital(where ? `${where}: ${text}` : text);
  switch (job.state) {
    case 'waiting':
      return placed('waits for its turn.');
    case 'paused':
      return 'Paused. It goes on from the last whole part.';
    case 'failed':
      return job.problem ?? 'It could not be written.';
    case 'writing':
      if (job.problem) return job.problem;
      return placed(going && going.seconds > 0 ? progressOf(job, going) : 'begins …');
    case 'done': {
      const { written } = job;
      if (!written) return '';
      const { writing } = job;
      const loudness = written.sound
        ? `, ${formatLevel(written.sound.level.integratedLufs, 'LUFS')}`
        : '';
      const held = written.sound?.isHeldBack
        ? ' (quieter than asked for: its peaks allow no more)'
        : '';
      const checked =
        writing.kind !== 'film' || writing.order.container === 'zip'
          ? ''
          : isRight(job)
            ? `, read back: ${frameCount(writing.order)} frames, right`
            : `, read back and not right: ${written.faults.join(' ')}`;
      const by = where ? `, ${where}` : written.byHardware ? ', by this machine’s own encoder' : '';
      return `${formatBytes(written.bytes)}${loudness}${held}${checked}${by}`;
    }
  }
}

/** How far it is on its way to the outside host. */
function sendingOf({ state, share, problem }: Sending): string {
  if (state === 'sent') return 'Sent to the outside host.';
  return state === 'failed'
    ? (problem ?? 'It was not sent.')
    : `On its way to the outside host: ${Math.floor(100 * share)} %`;
}

function progressOf(
  { writing }: AnyJob,
  { doing, share, frames, seconds }: WritingProgress,
): string {
  if (doing === 'joining') return 'joins the parts.';
  if (doing === 'sound') return 'mixes the sound.';
  if (writing.kind !== 'film') return `${Math.round(100 * share)} %`;
  const { order } = writing;
  const { rate } = order;
  const whole = frameCount(order);
  const sounding = order.audio ? SOUND_SHARE : 0;
  const drawn = Math.max(0, (share - sounding) / (1 - sounding));
  const done = Math.round(drawn * whole);
  const speed = frames / seconds / (rate.num / rate.den);
  const length = toSeconds(instantOf(order, whole)) - toSeconds(order.range.start);
  const left = frames > 0 ? ((1 - drawn) * length) / speed : 0;
  const at = formatLength(fromSeconds(drawn * length));
  const of = formatLength(fromSeconds(length));
  if (frames < 5) return `${at} of ${of}`;
  return `${at} of ${of}, ${speed.toFixed(1)} times as fast as it plays, ${formatLength(fromSeconds(left))} left${done === whole ? '.' : ''}`;
}

/** Gives the editor a file that is kept here. */
async function keep(job: Job): Promise<void> {
  try {
    const url = URL.createObjectURL(await jobs.file(job));
    save(url, job.name);
    // The browser reads it after the click has been answered; a long film takes it a while.
    setTimeout(() => URL.revokeObjectURL(url), 600_000);
  } catch (error) {
    say.problem(`${job.name} was not saved: ${messageOf(error)}`);
  }
}
