/** Items of a news feed for a crawl: picked, put in order, the old ones left out. */
import { Button, Checkbox, NumberInput } from '@mantine/core';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { FeedItem } from '@cadence/core/formats/feed/read.ts';
import { wordsWorker } from '../bringing/wordsWorker.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { messageOf } from '../desk/say.ts';
import type { WindowProps } from '../desk/windows.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import windows from '../kit/windows.module.css';
import { SortedList } from './SortedList.tsx';
import { travel } from './travel.ts';

const SERVICE = { address: '/api/news/harbour-board', name: 'Harbour Board' };

/** An item, whether it is picked, and a name by which it is known again after the feed was asked anew. */
interface Row extends FeedItem {
  readonly picked: boolean;
}

/** The rows of a feed as it is now: those that were there keep their place and their choice. */
function refreshed(rows: readonly Row[], items: readonly FeedItem[]): Row[] {
  const now = new Map(items.map((item) => [item.title, item]));
  const known = rows.filter(({ title }) => now.has(title));
  const titles = new Set(known.map(({ title }) => title));
  const fresh = [...now.values()].filter(({ title }) => !titles.has(title));
  return [...fresh.map((item) => ({ ...item, picked: true })), ...known];
}

export default function Feed({ close }: WindowProps) {
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [source, setSource] = useState(SERVICE.name);
  const [problem, setProblem] = useState('');
  const [hours, setHours] = useState(48);
  const [readAt, setReadAt] = useState(() => Date.now());
  const file = useRef<HTMLInputElement>(null);
  const take = async (read: () => Promise<readonly FeedItem[]>, name: string): Promise<void> => {
    try {
      const items = await read();
      setRows((before) => refreshed(name === source ? before : [], items));
      setSource(name);
      setReadAt(Date.now());
      setProblem('');
    } catch (error) {
      setProblem(`${name} could not be read: ${messageOf(error)} The items below are unchanged.`);
    }
  };
  const refresh = () =>
    take(async () => {
      const response = await fetch(SERVICE.address);
      if (!response.ok) throw new Error(`The news service answered ${response.status}.`);
      return wordsWorker().feed(await response.blob(), 'board.rss');
    }, SERVICE.name);
  const begin = useEffectEvent(() => void refresh());
  useEffect(() => begin(), []);
  const isOld = ({ at }: FeedItem): boolean =>
    at !== undefined && readAt - Date.parse(at) > hours * 3_600_000;
  const chosen = rows.filter((row) => row.picked && !isOld(row));
  const pick = (title: string, picked: boolean): void =>
    setRows(rows.map((row) => (row.title === title ? { ...row, picked } : row)));
  return (
    <div className={windows.form}>
      <div className={windows.choices}>
        <Button onClick={() => void refresh()}>
          {source === SERVICE.name ? `Refresh ${SERVICE.name}` : `Read ${SERVICE.name}`}
        </Button>
        <Button onClick={() => file.current?.click()}>From a file</Button>
        <input
          ref={file}
          type="file"
          hidden
          aria-label="Feed file"
          accept=".rss,.atom,.xml"
          onChange={(event) => {
            const [given] = event.currentTarget.files ?? [];
            if (given) void take(() => wordsWorker().feed(given, given.name), given.name);
            event.currentTarget.value = '';
          }}
        />
        <NumberInput
          size="xs"
          w={190}
          label="Maximum age"
          suffix=" hours"
          min={1}
          max={10_000}
          value={hours}
          onChange={(value) => typeof value === 'number' && value >= 1 && setHours(value)}
        />
      </div>
      {problem && <p role="alert">{problem}</p>}
      <SortedList
        label={`Items of ${source}`}
        sort={(ids) => setRows(ids.flatMap((id) => rows.find(({ title }) => title === id) ?? []))}
        rows={rows.map((row) => ({
          id: row.title,
          name: row.title,
          body: (
            <>
              <Checkbox
                size="xs"
                checked={row.picked && !isOld(row)}
                disabled={isOld(row)}
                label={row.title}
                onChange={(event) => pick(row.title, event.currentTarget.checked)}
              />
              <span className="spring" />
              <span className="quiet">{isOld(row) ? 'too old' : ageOf(row, readAt)}</span>
            </>
          ),
        }))}
      />
      <WindowFoot
        close={close}
        off={chosen.length === 0}
        says={rows.length > 0 ? 'These items replace the text of the crawl.' : ''}
        take={() => {
          const sheet = chosen.map(({ title }) => `${title}\n`).join('');
          travel.change(travel.setSheet(sheet, `Use ${plural(chosen.length, 'item')} of a feed`));
          close();
        }}
      >
        Use {plural(chosen.length, 'item')}
      </WindowFoot>
    </div>
  );
}

/** How old an item is, in minutes, hours or days. */
function ageOf({ at }: FeedItem, now: number): string {
  if (at === undefined) return '';
  const minutes = Math.max(0, Math.round((now - Date.parse(at)) / 60_000));
  if (minutes < 60) return `${minutes} min old`;
  return minutes < 48 * 60
    ? `${Math.round(minutes / 60)} h old`
    : `${Math.round(minutes / 1440)} days old`;
}
