/** The sheet of the passage in hand: its name, its editor, and what separates roles from names. */
import { Button, Select, TextInput } from '@mantine/core';
import { IconFileImport } from '@tabler/icons-react';
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Id } from '@cadence/core/programme/programme.ts';
import { laidCrawl, laidRoll, sheetOf } from '@cadence/core/scene/travelling.ts';
import type { ReadSheet } from '@cadence/core/text/sheet/sheet.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { messageOf, say } from '../desk/say.ts';
import { openNow, useShown } from '../desk/store.ts';
import { shelf } from '../picture/studio.ts';
import { player } from '../playback/player.ts';
import { bringInSheet } from './bringInSheet.ts';
import { formatClock } from './figures.ts';
import { SheetTools } from './SheetTools.tsx';
import { Slips, useSlips } from './Slips.tsx';
import type { SheetAsks, SheetEditor } from './sheet/SheetEditor.ts';
import { timeComeTo, type Coming } from '@cadence/core/scene/coming.ts';
import { travel } from './travel.ts';
import classes from './Sheet.module.css';
import place from './TravelPlace.module.css';

/** How far a passage has come when a line begins to be in sight, is in the middle, and is gone. */
interface InSight {
  readonly begins: number;
  readonly middle: number;
  readonly ends: number;
}

/** When each line of the sheet is in sight, by the line's number. */
function comings({ passage, facts }: Coming): Map<number, InSight> {
  const found = new Map<number, InSight>();
  const put = (line: number, begins: number, ends: number) =>
    found.has(line) || found.set(line, { begins, middle: (begins + ends) / 2, ends });
  if (passage.kind === 'roll') {
    const { layout, look } = laidRoll(passage, facts.frame);
    for (const { line, top, height } of [...layout.texts, ...layout.things]) {
      const begins = look.downwards ? layout.height - top - height : top;
      put(line, begins, begins + facts.frame.height + height);
    }
  } else {
    const { items, pane } = laidCrawl(passage, facts.frame, shelf);
    for (const { line, from, width } of items) put(line, from, from + pane.to - pane.from + width);
  }
  return found;
}

/** "143 names, 9 sections", "12 items". */
function countOf(kind: 'roll' | 'crawl', { parts }: ReadSheet, items: number): string {
  if (kind === 'crawl') return plural(items, 'item');
  const names = parts.reduce(
    (sum, part) => sum + (part.kind === 'row' || part.kind === 'columns' ? part.names.length : 0),
    0,
  );
  const sections = parts.filter((part) => part.kind === 'heading').length;
  const lines = parts.filter((part) => part.kind === 'text').length;
  return [
    names > 0 ? plural(names, 'name') : plural(lines, 'line'),
    ...(sections > 0 ? [plural(sections, 'section')] : []),
  ].join(', ');
}

interface Props {
  readonly coming: Coming;
  /** Whether it is on the programme, so that its lines have their times. */
  readonly placed: boolean;
}

export function Sheet({ coming, placed }: Props) {
  const parent = useRef<HTMLDivElement>(null);
  const file = useRef<HTMLInputElement>(null);
  const editor = useRef<SheetEditor | null>(null);
  const { passage, facts } = coming;
  const materials = useShown((programme) => programme.materials);
  const pictures = useMemo(
    () => Object.values(materials).flatMap(({ kind, name }) => (kind === 'image' ? [name] : [])),
    [materials],
  );
  const whole = placed ? coming : undefined;
  const lines = useMemo(() => comings(coming), [coming]);
  const latest = useRef({ whole, lines, pictures });
  latest.current = { whole, lines, pictures };

  /** Plays the lines that are selected, from when the first comes into sight until the last is gone. */
  const play = useCallback(() => {
    const { whole: now, lines: at } = latest.current;
    const [first, last] = editor.current?.selectedLines() ?? [0, 0];
    const seen = [...at].flatMap(([line, each]) => (line >= first && line <= last ? [each] : []));
    if (!now) say.note('Place this passage on the programme first.');
    else if (seen.length === 0) say.note('These lines are never visible.');
    else {
      const begins = Math.min(...seen.map((each) => each.begins));
      const ends = Math.max(...seen.map((each) => each.ends));
      player.play({ start: timeComeTo(now, begins), end: timeComeTo(now, ends) });
    }
  }, []);

  const [written, setWritten] = useState<Id | null>(null);
  useEffect(() => {
    const asks: SheetAsks = {
      timeOf: (line) => {
        const { whole: now, lines: at } = latest.current;
        const come = at.get(line);
        if (!now || !come) return undefined;
        const [begins, ends] = [timeComeTo(now, come.begins), timeComeTo(now, come.ends)];
        return {
          from: formatClock(toSeconds(subtract(begins, now.cue.start))),
          lasts: `${toSeconds(subtract(ends, begins)).toFixed(1)} s`,
        };
      },
      atLine: (line) => {
        const { whole: now, lines: at } = latest.current;
        const come = at.get(line);
        if (now && come && !player.state().playing) player.seek(timeComeTo(now, come.middle));
      },
      pictures: () => latest.current.pictures,
      play,
    };
    let stale = false;
    // The place stands before the editor of its text is fetched.
    loadWithRetry(() => import('./sheet/SheetEditor.ts')).then(
      (part) => {
        if (stale || !parent.current) return;
        const made = new part.SheetEditor(parent.current, passage.id, asks);
        editor.current = made;
        setWritten(passage.id);
        // What is empty is written on first.
        if (openNow().programme.passages[passage.id]?.sheet === '') made.focus();
      },
      (error: unknown) => say.problem(`The sheet cannot be edited: ${messageOf(error)}`),
    );
    return () => {
      stale = true;
      editor.current?.close();
      editor.current = null;
    };
  }, [passage.id, play]);
  useEffect(() => editor.current?.retime(), [lines, written]);

  const slips = useSlips(passage);
  useEffect(() => editor.current?.underline(slips), [slips, written]);
  const read = sheetOf(passage);
  const crawl = passage.kind === 'crawl';
  const items = crawl ? laidCrawl(passage, facts.frame, shelf).items.length : 0;
  return (
    <>
      <div className={place.head}>
        <div className={classes.called}>
          <Title key={passage.id} title={passage.title} />
          <span className="quiet">{countOf(passage.kind, read, items)}</span>
        </div>
        <input
          ref={file}
          type="file"
          hidden
          aria-label="File with the text"
          accept=".txt,.md,.markdown,.rtf,.docx,.csv,.tsv,.rss,.atom,.xml"
          onChange={(event) => {
            const [chosen] = event.currentTarget.files ?? [];
            if (chosen) void bringInSheet(chosen);
            event.currentTarget.value = '';
          }}
        />
        <Button leftSection={<IconFileImport size={15} />} onClick={() => file.current?.click()}>
          Bring in text
        </Button>
      </div>
      <SheetTools crawl={crawl} pictures={pictures} editor={editor} play={play} />
      <div ref={parent} className={classes.sheet}>
        {written !== passage.id && <pre className={classes.coming}>{passage.sheet}</pre>}
      </div>
      <Foot
        passage={passage}
        read={read}
        unparted={slips.filter(({ kind }) => kind === 'separator').length}
      >
        <Slips
          slips={slips}
          go={({ line, text }) => editor.current?.select(line, text)}
          mend={({ line, text, mend = text }) => editor.current?.replace(line, text, mend)}
        />
      </Foot>
    </>
  );
}

function Title({ title }: { title: string }) {
  const [text, setText] = useState(title);
  useEffect(() => setText(title), [title]);
  const keep = () => {
    if (text.trim() === '') setText(title);
    else if (text !== title) travel.change(travel.rename(text.trim()));
  };
  return (
    <TextInput
      className={classes.title}
      aria-label="Name of the passage"
      value={text}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  );
}

const SEPARATORS = [
  { value: '\t', label: 'Tab' },
  { value: '  ', label: 'Two or more spaces' },
  { value: ':', label: 'Colon' },
  { value: '....', label: 'Dots' },
  { value: ' - ', label: 'Dash' },
  { value: '|', label: 'Bar' },
  { value: '::', label: 'Two colons' },
  { value: '..', label: 'Two or three dots' },
  { value: ';', label: 'Semicolon' },
  { value: '/', label: 'Slash' },
  { value: '=', label: 'Equals sign' },
];
const DETECT = 'detect';

function Foot({
  passage,
  read,
  unparted,
  children,
}: {
  passage: Coming['passage'];
  read: ReadSheet;
  /** How many lines lack the separator among others that have it. */
  unparted: number;
  children: ReactNode;
}) {
  const { separator, notUnderstood } = read;
  const known = SEPARATORS.find(({ value }) => value === separator?.separator)?.label;
  const detected = separator ? (known ?? `“${separator.separator.trim()}”`) : 'None';
  const chosen = passage.separator ?? DETECT;
  return (
    <div className={classes.foot}>
      {passage.kind === 'roll' && (
        <>
          <span className="quiet">Separator</span>
          <Select
            size="xs"
            w={142}
            aria-label="Separator between role and name"
            allowDeselect={false}
            data={[
              { value: DETECT, label: `${detected} (detected)` },
              ...SEPARATORS,
              ...(chosen !== DETECT && !SEPARATORS.some(({ value }) => value === chosen)
                ? [{ value: chosen, label: `“${chosen.trim()}”` }]
                : []),
            ]}
            value={chosen}
            onChange={(value) =>
              travel.change(travel.setSeparator(value === DETECT ? null : value))
            }
          />
        </>
      )}
      {unparted > 0 && <span className={place.unknown}>{plural(unparted, 'line')} without it</span>}
      <span className="spring" />
      {notUnderstood.length > 0 && (
        <span className={place.unknown}>{plural(notUnderstood.length, 'unknown mark')}</span>
      )}
      {children}
    </div>
  );
}
