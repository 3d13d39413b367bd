/** Lights the word that is said in the manuscript. */
import { ViewPlugin, type EditorView } from '@codemirror/view';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { player } from '../../playback/player.ts';
import { light, saidNow } from '../saidLight.ts';
import { paragraphsField } from './paragraphs.ts';

export const saidWord = ViewPlugin.fromClass(
  class {
    readonly #view: EditorView;
    readonly #stop: () => void;
    constructor(view: EditorView) {
      this.#view = view;
      this.#stop = player.follow((time) => {
        this.#show(time);
      });
    }
    #show(time: Ticks): void {
      const said = saidNow(time);
      const { cues, starts } = this.#view.state.field(paragraphsField);
      const place = said ? cues.findIndex((own) => own[0] === said.cue) : -1;
      const start = starts[place];
      const { length } = this.#view.state.doc;
      if (!said || start === undefined || start + said.to > length) {
        light(undefined);
        return;
      }
      const range = document.createRange();
      const [from, to] = [said.from, said.to].map((at) => this.#view.domAtPos(start + at));
      if (!from || !to) return;
      range.setStart(from.node, from.offset);
      range.setEnd(to.node, to.offset);
      light(range);
    }
    destroy(): void {
      this.#stop();
      light(undefined);
    }
  },
);
