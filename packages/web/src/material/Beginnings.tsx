/** The ways in which work on an empty programme begins, each one press away. */
import { Button, FileButton } from '@mantine/core';
import type { ReactNode } from 'react';
import { bringIn } from '../bringing/bringIn.ts';
import { CAPTIONS, SOUND_AND_FILM, WORDS } from '../bringing/kinds.ts';
import { goTo } from '../desk/places.ts';
import { makeTravelling } from '../desk/travelling.ts';
import { showWindow } from '../desk/windows.ts';
import classes from './MaterialPlace.module.css';

export function Beginnings() {
  return (
    <div className={classes.begin}>
      <h2>How does it begin?</h2>
      <ul>
        <Way
          title="A film or a sound"
          says="Its speech, beats and hits are found while it is read. Then type as you listen."
        >
          <Chosen accept={SOUND_AND_FILM} first>
            Choose a film or a sound
          </Chosen>
        </Way>
        <Way
          title="A song or a narration with its words"
          says="Choose the sound and the text together. Each word is woven on the sound."
        >
          <Chosen accept={`${SOUND_AND_FILM},${WORDS}`}>Choose both files</Chosen>
        </Way>
        <Way
          title="A list for a roll or cards"
          says="Roles and names, or lines. Paste them, or drop the file."
        >
          <Button onClick={() => void makeTravelling('roll')}>Make a roll</Button>
          <Button
            onClick={() => {
              goTo('travel');
              showWindow('cards');
            }}
          >
            Make cards
          </Button>
        </Way>
        <Way title="A text for a crawl" says="One line an item, or a news feed.">
          <Button onClick={() => void makeTravelling('crawl')}>Make a crawl</Button>
        </Way>
        <Way
          title="A caption file"
          says="SRT, WebVTT, TTML, EBU STL, LRC or a table, to correct, retime or convert."
        >
          <Chosen accept={CAPTIONS}>Choose a caption file</Chosen>
        </Way>
      </ul>
    </div>
  );
}

function Way({ title, says, children }: { title: string; says: string; children: ReactNode }) {
  return (
    <li>
      <div>
        <h3>{title}</h3>
        <p className="quiet">{says}</p>
      </div>
      <span className={classes.ways}>{children}</span>
    </li>
  );
}

interface ChosenProps {
  readonly accept: string;
  /** Whether it is what most work begins with. */
  readonly first?: boolean;
  readonly children: string;
}

function Chosen({ accept, first = false, children }: ChosenProps) {
  return (
    <FileButton multiple accept={accept} onChange={bringIn}>
      {(props) => (
        <Button {...props} variant={first ? 'filled' : 'default'}>
          {children}
        </Button>
      )}
    </FileButton>
  );
}
