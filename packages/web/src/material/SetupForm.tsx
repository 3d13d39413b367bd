/** Frame, rate, start and length of the programme, and what its readers manage. */
import { Button, ColorInput, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import * as yup from 'yup';
import { setFacts } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { FRAME_RATES, frameAfter, nameRate } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../desk/desk.ts';
import { InTurn } from '../kit/InTurn.tsx';
import { openNow } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import classes from './SetupForm.module.css';

const FRAMES = [
  '1920 × 1080',
  '1280 × 720',
  '3840 × 2160',
  '1080 × 1920',
  '1080 × 1080',
  '1440 × 1080',
];
const whole = (least: number, most: number, what: string) =>
  yup
    .number()
    .typeError(`${what} is a number.`)
    .required(`${what} is needed.`)
    .min(least, `${what} must be at least ${least}.`)
    .max(most, `${what} must be at most ${most}.`);

const shape = yup.object({
  title: yup.string().trim().required('A programme needs a name.').max(300),
  frame: yup
    .string()
    .matches(/^\d{2,5} × \d{2,5}$/)
    .required(),
  seconds: whole(1, 86_400, 'The length'),
  charactersASecond: whole(1, 200, 'The reading speed'),
  longestLine: whole(1, 500, 'The line length'),
  lines: whole(1, 10, 'The number of lines'),
  shortestStay: whole(0, 60, 'The minimum duration'),
  longestStay: whole(0.1, 600, 'The maximum duration'),
  gapFrames: whole(0, 100, 'The gap'),
});

export default function SetupForm({ close }: WindowProps) {
  const [facts] = useState(() => openNow().programme.facts);
  const { profile } = facts;
  const [values, setValues] = useState({
    title: facts.title,
    frame: `${facts.frame.width} × ${facts.frame.height}`,
    rate: nameRate(facts.frameRate),
    start: formatTimecode(facts.startTimecode, facts.frameRate),
    seconds: Number(toSeconds(facts.length).toFixed(2)) as number | string,
    colour: facts.backdrop.colour,
    charactersASecond: profile.charactersASecond as number | string,
    longestLine: profile.longestLine as number | string,
    lines: profile.lines as number | string,
    shortestStay: toSeconds(profile.shortestStay) as number | string,
    longestStay: toSeconds(profile.longestStay) as number | string,
    gapFrames: profile.gapFrames as number | string,
  });
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({});
  const set = (part: Partial<typeof values>) => setValues({ ...values, ...part });
  const rates = FRAME_RATES.map(nameRate);
  const frames = FRAMES.includes(values.frame) ? FRAMES : [values.frame, ...FRAMES];

  const keep = () => {
    const frameRate = FRAME_RATES.find((rate) => nameRate(rate) === values.rate) ?? facts.frameRate;
    const startTimecode = parseTimecode(values.start, frameRate);
    const found: Record<string, string> = {};
    if (startTimecode === undefined)
      found.start = `Write a timecode, such as ${formatTimecode(fromSeconds(36_000), frameRate)}.`;
    try {
      const checked = shape.validateSync(values, { abortEarly: false });
      if (checked.longestStay <= checked.shortestStay)
        found.longestStay = 'This must be more than the minimum duration.';
      if (Object.keys(found).length === 0 && startTimecode !== undefined) {
        const [width = 1920, height = 1080] = checked.frame.split(' × ').map(Number);
        make(
          setFacts(openNow().programme, {
            title: checked.title,
            frame: { width, height },
            frameRate,
            startTimecode,
            length:
              checked.seconds === Number(toSeconds(facts.length).toFixed(2))
                ? facts.length
                : frameAfter(fromSeconds(checked.seconds), frameRate),
            setBy: 'editor',
            backdrop: { colour: values.colour },
            profile: {
              charactersASecond: checked.charactersASecond,
              longestLine: Math.round(checked.longestLine),
              lines: Math.round(checked.lines),
              shortestStay: fromSeconds(checked.shortestStay),
              longestStay: fromSeconds(checked.longestStay),
              gapFrames: Math.round(checked.gapFrames),
            },
          }),
        );
        close();
        return;
      }
    } catch (error) {
      if (!(error instanceof yup.ValidationError)) throw error;
      for (const each of error.inner) found[each.path ?? ''] = each.message;
    }
    setErrors(found);
  };

  const number = (name: keyof typeof values, label: string, step = 1) => (
    <NumberInput
      label={label}
      value={values[name]}
      step={step}
      error={errors[name]}
      onChange={(value) => set({ [name]: value })}
    />
  );
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <InTurn>
        <TextInput
          className={classes.wide ?? ''}
          label="Name"
          value={values.title}
          error={errors.title}
          onChange={(event) => set({ title: event.currentTarget.value })}
        />
        <NativeSelect
          label="Frame size, px"
          data={frames}
          value={values.frame}
          onChange={(event) => set({ frame: event.currentTarget.value })}
        />
        <NativeSelect
          label="Frame rate"
          data={rates.includes(values.rate) ? rates : [values.rate, ...rates]}
          value={values.rate}
          onChange={(event) => set({ rate: event.currentTarget.value })}
        />
        <TextInput
          label="Start timecode"
          value={values.start}
          error={errors.start}
          onChange={(event) => set({ start: event.currentTarget.value })}
        />
        {number('seconds', 'Length, s')}
        <ColorInput
          label="Background colour"
          format="hex"
          value={values.colour}
          onChange={(colour) => /^#[0-9a-f]{6}$/i.test(colour) && set({ colour })}
        />
        <h3 className={classes.wide}>Reading speed</h3>
        {number('charactersASecond', 'Maximum characters a second')}
        {number('longestLine', 'Maximum characters a line')}
        {number('lines', 'Maximum lines')}
        {number('gapFrames', 'Minimum gap, frames')}
        {number('shortestStay', 'Minimum duration, s', 0.1)}
        {number('longestStay', 'Maximum duration, s', 0.5)}
        <div className={`bar ${classes.wide}`}>
          <span className="spring" />
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" variant="filled">
            Save settings
          </Button>
        </div>
      </InTurn>
    </form>
  );
}
