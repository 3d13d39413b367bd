/** Material: what was brought in, and what was found in it. */
import { ActionIcon, Button, FileButton, Progress, Tooltip } from '@mantine/core';
import { IconAlertTriangle, IconTrash, IconTypography } from '@tabler/icons-react';
import { useDeferredValue, useState } from 'react';
import { removeMaterial } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { soundOf } from '@cadence/core/programme/heard.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { materialUrl, stillUrl } from '../sync/api.ts';
import { make } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { formatBytes, formatFrame, formatLength } from '../kit/format.ts';
import { openNow, useApp, useAppDispatch, useShown } from '../desk/store.ts';
import { showWindow } from '../desk/windows.ts';
import { gone, growing, stopArrival, type Arrival } from '../desk/arrivals.ts';
import { bringIn } from '../bringing/bringIn.ts';
import { MEDIA, WORDS } from '../bringing/kinds.ts';
import { useHeard } from '../listening/heard.ts';
import { Waveform } from './Waveform.tsx';
import classes from './MaterialPlace.module.css';
import { About } from './About.tsx';
import { Beginnings } from './Beginnings.tsx';

export default function MaterialPlace() {
  const materials = useShown((programme) => programme.materials);
  const sound = useShown((programme) => programme.facts.sound);
  const arrivals = useApp((state) => state.arrivals);
  const [chosen, setChosen] = useState<string | null>(null);
  const picture = useShown((programme) => programme.facts.picture);
  const used = (material: Material) => Number(material.id === sound || material.id === picture);
  const all = Object.values(materials).sort(
    (a, b) => used(b) - used(a) || a.name.localeCompare(b.name),
  );
  const shown = materials[chosen ?? ''] ?? materials[sound ?? ''] ?? all[0];
  // What was found in a new one is put in after the page has shown that it is there.
  const about = useDeferredValue(shown);
  const bytes = all.reduce((sum, material) => sum + material.bytes, 0);
  return (
    <main className="place">
      <section className={classes.list} aria-label="Brought in">
        <div className="bar">
          <h2>Brought in</h2>
          <span className="quiet">
            {all.length > 0 && `${plural(all.length, 'file')}, ${formatBytes(bytes)}`}
          </span>
          <span className="spring" />
          <FileButton multiple accept={`${MEDIA},${WORDS}`} onChange={bringIn}>
            {(props) => (
              <Button {...props} variant="filled">
                Choose files
              </Button>
            )}
          </FileButton>
        </div>
        {all.length > 0 && <Assumed />}
        {all.map((material) => (
          <MaterialCard
            key={material.id}
            material={material}
            on={material === shown}
            choose={() => setChosen(material.id)}
          />
        ))}
        {arrivals.map((arrival) => (
          <ArrivalCard key={arrival.id} arrival={arrival} />
        ))}
        <div className={classes.drop}>
          <div>
            <b>Drop sound, film, pictures, fonts or words anywhere</b>
            <br />
            WAV, MP3, FLAC, OGG, Opus, M4A, MP4, MOV, WebM, MKV, PNG, JPEG, WebP, SVG, TTF, OTF,
            WOFF2
            <br />
            SRT, WebVTT, TTML, EBU STL, LRC, CSV, text, Markdown, RTF, DOCX, RSS, Atom, OTIO, MIDI
          </div>
        </div>
      </section>
      <section className={classes.about} aria-label="What was found">
        {about ? <About key={about.id} material={about} /> : <Beginnings />}
      </section>
    </main>
  );
}

/** What was assumed of the programme, until the editor sets it up. */
function Assumed() {
  const { setBy, frame, frameRate, picture } = useShown((programme) => programme.facts);
  const film = useShown((programme) => programme.materials[picture ?? '']);
  if (setBy === 'editor') return null;
  const from = setBy === 'film' && film?.picture?.frameRate ? `From ${film.name}` : 'Assumed';
  return (
    <p className={`quiet ${classes.assumed}`}>
      {from}: {formatFrame(frame, frameRate)}.
      <Button onClick={() => showWindow('setup')}>Set up</Button>
    </p>
  );
}

interface CardProps {
  readonly material: Material;
  readonly on: boolean;
  readonly choose: () => void;
}

function MaterialCard({ material, on, choose }: CardProps) {
  const heard = useHeard(material.sound ? material.hash : undefined);
  const role = useShown((programme) => {
    const { facts } = programme;
    if (facts.sound === material.id || facts.picture === material.id) return 'Programme';
    if (soundOf(programme, material.id)) return 'Also heard';
    return { font: 'Font', image: 'Picture', sound: '', film: '' }[material.kind];
  });
  return (
    <div className={`card ${classes.item} ${on ? classes.on : ''}`}>
      <button type="button" className={classes.choose} aria-pressed={on} onClick={choose}>
        <span className={classes.thumb}>
          {material.kind === 'image' ? (
            <img src={materialUrl(material.hash)} alt="" />
          ) : material.picture?.shown ? (
            <img src={stillUrl(material.hash)} alt="" />
          ) : material.kind === 'font' ? (
            <IconTypography size={26} />
          ) : (
            <Waveform
              peaks={heard?.peaks}
              duration={toSeconds(material.length)}
              height={50}
              label="Waveform"
            />
          )}
        </span>
        <span>
          <b>{material.name}</b>
          <small>{describe(material)}</small>
        </span>
      </button>
      <span className="quiet">{role}</span>
      <Tooltip label="Remove from the programme">
        <ActionIcon
          aria-label={`Remove ${material.name}`}
          onClick={() => make(removeMaterial(openNow().programme, material.id))}
        >
          <IconTrash size={16} stroke={1.6} />
        </ActionIcon>
      </Tooltip>
    </div>
  );
}

function describe(material: Material): string {
  const { picture, sound, family } = material;
  if (family !== null) return `Font, ${family}`;
  if (material.kind === 'image' && picture)
    return `Still picture, ${picture.width} × ${picture.height}, ${formatBytes(material.bytes)}`;
  const kind = picture?.shown ? (sound ? 'Picture and sound' : 'Picture') : 'Sound';
  const size = picture?.shown ? `, ${picture.width} × ${picture.height}` : '';
  return `${kind}, ${formatLength(material.length)}${size}, ${formatBytes(material.bytes)}`;
}

function ArrivalCard({ arrival }: { arrival: Arrival }) {
  const dispatch = useAppDispatch();
  const failed = arrival.state === 'failed';
  const grown = growing.get(arrival.id);
  return (
    <div
      className={`card ${classes.item} ${failed ? classes.failed : ''}`}
      role={failed ? 'alert' : 'status'}
    >
      <div className={classes.choose}>
        <span className={classes.thumb}>
          {failed ? (
            <IconAlertTriangle size={26} stroke={1.6} color="var(--alarm)" />
          ) : (
            grown && (
              <Waveform
                peaks={{ levels: [{ rate: 1, pairs: joined(grown.pairs) }] }}
                duration={grown.duration || 1}
                height={50}
                label="Waveform so far"
              />
            )
          )}
        </span>
        <span className={classes.grow}>
          <b>{arrival.name}</b>
          <small>{arrival.message}</small>
          {!failed && (
            <Progress
              value={arrival.share * 100}
              size={5}
              color="var(--woad)"
              mt={6}
              aria-label="Progress"
            />
          )}
        </span>
      </div>
      {failed ? (
        <Button onClick={() => dispatch(gone(arrival.id))}>Dismiss</Button>
      ) : (
        <Button onClick={() => stopArrival(arrival.id)}>Stop</Button>
      )}
    </div>
  );
}

function joined(parts: readonly Int8Array[]): Int8Array {
  const all = new Int8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
