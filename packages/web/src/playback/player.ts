/**
 * Playing the programme: its main sound is the clock, and other sounds and the picture follow.
 *
 * Each sound is played by a media element, which streams it in ranges and keeps the pitch at other
 * speeds; the position of the main one is the position of the programme. Where it is not heard, a silent
 * clock runs. Levels and fades are set on every screen frame.
 */
import { gainAt, inMaterial, inProgramme, stretchOf } from '@cadence/core/programme/heard.ts';
import type { Sound } from '@cadence/core/programme/programme.ts';
import { toSeconds, fromSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { contains, type Range } from '@cadence/core/time/range.ts';

export interface PlayerState {
  readonly playing: boolean;
  readonly speed: number;
  /** What is played and then stopped at, or gone round in. */
  readonly stretch: Range | null;
  readonly looping: boolean;
  /** A sentence, where the sound cannot be played. */
  readonly problem: string | null;
}

export interface Sources {
  /** What is heard, by its address and how it is laid; the main sound first. */
  readonly sounds: readonly { readonly source: string; readonly sound: Sound }[];
  /** Address of what is seen, and how long it is; a film may be among the sounds too. */
  readonly picture: { readonly source: string; readonly length: Ticks } | null;
  readonly length: Ticks;
}

/** A sound with the element that plays it. */
interface Track {
  readonly source: string;
  readonly element: HTMLMediaElement;
  sound: Sound;
}

/** How far a sound or the picture may stray from the clock before it is brought back, in seconds. */
const STRAY = 0.06;

/** Whether a film's own sound lies as in the film, so that one element can play both. */
const asInFilm = ({ at, from }: Sound): boolean => at === 0 && from === 0;

class Player {
  #sources: Sources = { sounds: [], picture: null, length: 0 as Ticks };
  #tracks: Track[] = [];
  #video: HTMLVideoElement | null = null;
  #state: PlayerState = { playing: false, speed: 1, stretch: null, looping: false, problem: null };
  /** Where the programme stands, in seconds, when no element says so. */
  #at = 0;
  #clockStart = 0;
  #frame = 0;
  readonly #watchers = new Set<() => void>();
  readonly #followers = new Set<(time: Ticks) => void>();

  readonly watch = (watcher: () => void): (() => void) => {
    this.#watchers.add(watcher);
    return () => this.#watchers.delete(watcher);
  };
  readonly state = (): PlayerState => this.#state;

  /** Calls back once for each screen frame while time moves, and after each jump. */
  follow(follower: (time: Ticks) => void): () => void {
    this.#followers.add(follower);
    return () => this.#followers.delete(follower);
  }

  /** The element whose picture is seen, for drawing it. */
  get video(): HTMLVideoElement | null {
    return this.#video;
  }

  get time(): Ticks {
    return fromSeconds(this.#seconds());
  }

  load(sources: Sources): void {
    const same =
      sources.picture?.source === this.#sources.picture?.source &&
      sources.sounds.length === this.#tracks.length &&
      sources.sounds.every(({ source, sound }, at) => {
        const track = this.#tracks[at];
        const shared = track?.element === this.#video;
        return track?.source === source && (!shared || asInFilm(sound));
      });
    this.#sources = sources;
    if (same) {
      let moved = false;
      sources.sounds.forEach(({ sound }, at) => {
        const track = this.#tracks[at];
        if (!track) return;
        moved ||= track.sound.at !== sound.at || track.sound.from !== sound.from;
        track.sound = sound;
      });
      if (moved && !this.#state.playing) this.#seek(this.#at);
      return;
    }
    this.pause();
    for (const element of this.#elements()) {
      element.removeAttribute('src');
      element.load();
    }
    const { picture } = sources;
    this.#video = picture === null ? null : this.#element('video', picture.source);
    this.#tracks = sources.sounds.map(({ source, sound }) => ({
      source,
      sound,
      element:
        this.#video && source === picture?.source && asInFilm(sound)
          ? this.#video
          : this.#element('audio', source),
    }));
    if (this.#video)
      this.#video.muted = !this.#tracks.some(({ element }) => element === this.#video);
    this.#set({ problem: null });
    this.#seek(this.#at);
  }

  play(stretch: Range | null = null): void {
    if (stretch) this.#seek(toSeconds(stretch.start));
    else if (this.#seconds() >= this.#end() - 0.01) this.#seek(0);
    this.#set({ stretch, playing: true });
    this.#clockStart = performance.now();
    for (const element of this.#elements()) element.playbackRate = this.#state.speed;
    this.#keepTogether(this.#at);
    this.#run();
  }

  #begin(element: HTMLMediaElement): void {
    element.play().catch((error: unknown) => {
      // Stopping before it began is no failure.
      if (error instanceof DOMException && error.name === 'AbortError') return;
      if (element === this.#main?.element) this.#fail();
    });
  }

  /** The sound that is the clock. */
  get #main(): Track | undefined {
    return this.#tracks[0];
  }

  pause(): void {
    this.#at = this.#seconds();
    for (const element of this.#elements()) element.pause();
    if (this.#state.playing) this.#set({ playing: false });
    this.#seekVideo();
    this.#tell();
  }

  toggle(): void {
    if (this.#state.playing) this.pause();
    else this.play();
  }

  seek(time: Ticks): void {
    const wasPlaying = this.#state.playing;
    this.#seek(toSeconds(time));
    if (this.#state.stretch) this.#set({ stretch: null });
    if (wasPlaying) this.#run();
    else this.#tell();
  }

  setSpeed(speed: number): void {
    this.#at = this.#seconds();
    this.#clockStart = performance.now();
    for (const element of this.#elements()) element.playbackRate = speed;
    this.#set({ speed });
  }

  setLooping(looping: boolean): void {
    this.#set({ looping });
  }

  #element<K extends 'audio' | 'video'>(kind: K, source: string): HTMLElementTagNameMap[K] {
    const element = document.createElement(kind);
    element.preload = 'auto';
    element.preservesPitch = true;
    element.src = source;
    element.onerror = () => {
      if (element === this.#main?.element) this.#fail();
    };
    element.onseeked = () => this.#tell();
    element.onloadeddata = () => {
      if (!this.#state.playing) this.#seek(this.#at);
      this.#tell();
    };
    return element;
  }

  #elements(): HTMLMediaElement[] {
    return [...new Set([this.#video, ...this.#tracks.map(({ element }) => element)])].filter(
      (element) => element !== null,
    );
  }

  #fail(): void {
    this.pause();
    this.#set({
      problem:
        'The sound cannot be played: its file is gone, or this browser cannot decode it. Times and text are kept.',
    });
  }

  #end(): number {
    return toSeconds(this.#sources.length);
  }

  #seconds(): number {
    if (!this.#state.playing) return this.#at;
    const main = this.#main;
    if (main && !main.element.paused && !main.element.ended && !main.element.seeking)
      return toSeconds(inProgramme(main.sound, fromSeconds(main.element.currentTime)));
    return this.#at + ((performance.now() - this.#clockStart) / 1000) * this.#state.speed;
  }

  #seek(to: number): void {
    this.#at = Math.max(0, Math.min(this.#end(), to));
    this.#clockStart = performance.now();
    for (const { element, sound } of this.#tracks) {
      const there = toSeconds(inMaterial(sound, fromSeconds(this.#at)));
      if (element !== this.#video && Math.abs(element.currentTime - there) > 0.0005)
        element.currentTime = Math.max(0, there);
    }
    this.#seekVideo();
  }

  #seekVideo(): void {
    if (this.#video && Math.abs(this.#video.currentTime - this.#at) > 0.0005)
      this.#video.currentTime = this.#at;
  }

  #run(): void {
    cancelAnimationFrame(this.#frame);
    const step = (drawnAt: number) => {
      if (!this.#state.playing) return;
      const { stretch, looping, speed } = this.#state;
      const now = this.#seconds();
      const end = stretch ? toSeconds(stretch.end) : this.#end();
      if (now >= end) {
        if (!looping) {
          this.pause();
          this.#seek(end);
          this.#tell();
          return;
        }
        this.#seek(stretch ? toSeconds(stretch.start) : 0);
      }
      this.#keepTogether(this.#seconds());
      // The instant that the screen frame is for: this runs later, by as much as other work takes, which is never the same.
      const since = ((performance.now() - drawnAt) / 1000) * speed;
      this.#at = Math.max(this.#at, this.#seconds() - since);
      this.#clockStart = drawnAt;
      this.#tell(fromSeconds(this.#at));
      this.#frame = requestAnimationFrame(step);
    };
    this.#frame = requestAnimationFrame(step);
  }

  /** Lets each sound be heard where it lies, as loud as it should be, and the picture run; brings back what strays. */
  #keepTogether(now: number): void {
    const time = fromSeconds(now);
    for (const { element, sound } of this.#tracks) {
      element.volume = Math.min(1, gainAt(sound, time));
      if (element === this.#video) continue;
      const there = toSeconds(inMaterial(sound, time));
      this.#keepAt(element, contains(stretchOf(sound), time) ? there : undefined);
    }
    if (this.#video)
      this.#keepAt(this.#video, time < (this.#sources.picture?.length ?? 0) ? now : undefined);
  }

  /**
   * Lets an element play on from where it is to be, in seconds; undefined where it is not to be heard or seen. One that
   * is at its end must not be begun: it would go back to its beginning.
   */
  #keepAt(element: HTMLMediaElement, there: number | undefined): void {
    const over = Number.isFinite(element.duration) && (there ?? 0) >= element.duration;
    if (there === undefined || over) {
      if (!element.paused) element.pause();
    } else if (element.paused) {
      if (Math.abs(element.currentTime - there) > STRAY) element.currentTime = there;
      // One that cannot be decoded is not tried again at every frame.
      const isBroken = element.error !== null && element !== this.#main?.element;
      if (!element.ended && !isBroken) this.#begin(element);
    } else if (element !== this.#main?.element) bringBack(element, there);
  }

  #tell(time = this.time): void {
    for (const follower of this.#followers) follower(time);
  }

  #set(part: Partial<PlayerState>): void {
    this.#state = { ...this.#state, ...part };
    for (const watcher of this.#watchers) watcher();
  }
}

function bringBack(element: HTMLMediaElement, there: number): void {
  if (!element.seeking && Math.abs(element.currentTime - there) > STRAY)
    element.currentTime = there;
}

export const player = new Player();
