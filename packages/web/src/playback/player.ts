/**
 * Playing the programme: its sound is the clock, and its picture follows.
 *
 * The sound is played by a media element, which streams it in ranges and keeps the pitch at other
 * speeds; its position is the position of the programme. Where there is no sound, a silent clock runs.
 */
import { toSeconds, fromSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import type { Range } from '@cadence/core/time/range.ts';

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
  /** Addresses of what is heard and what is seen; the same one for a film with its own sound. */
  readonly sound: string | null;
  readonly picture: string | null;
  readonly length: Ticks;
}

class Player {
  #sources: Sources = { sound: null, picture: null, length: 0 as Ticks };
  #sound: HTMLMediaElement | null = null;
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
    const { sound, picture } = this.#sources;
    this.#sources = sources;
    if (sound === sources.sound && picture === sources.picture) return;
    this.pause();
    for (const element of new Set([this.#sound, this.#video])) {
      element?.removeAttribute('src');
      element?.load();
    }
    this.#video = sources.picture === null ? null : this.#element('video', sources.picture);
    if (sources.sound === null) this.#sound = null;
    else if (sources.sound === sources.picture) this.#sound = this.#video;
    else this.#sound = this.#element('audio', sources.sound);
    if (this.#video && this.#video !== this.#sound) this.#video.muted = true;
    this.#set({ problem: null });
    this.#seek(this.#at);
  }

  play(stretch: Range | null = null): void {
    if (stretch) this.#seek(toSeconds(stretch.start));
    else if (this.#seconds() >= this.#end() - 0.01) this.#seek(0);
    this.#set({ stretch, playing: true });
    this.#clockStart = performance.now() - (this.#at / this.#state.speed) * 1000;
    for (const element of this.#elements()) {
      element.playbackRate = this.#state.speed;
      element.play().catch((error: unknown) => {
        // Stopping before it began is no failure.
        if (error instanceof DOMException && error.name === 'AbortError') return;
        if (element === this.#sound) this.#fail();
      });
    }
    this.#run();
  }

  pause(): void {
    this.#at = this.#seconds();
    for (const element of this.#elements()) element.pause();
    if (this.#state.playing) this.#set({ playing: false });
    this.#seekVideo();
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
    this.#clockStart = performance.now() - (this.#at / speed) * 1000;
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
      if (element === this.#sound) this.#fail();
    };
    element.onseeked = () => this.#tell();
    element.onloadeddata = () => {
      if (Math.abs(element.currentTime - this.#at) > 0.001 && !this.#state.playing)
        element.currentTime = this.#at;
      this.#tell();
    };
    return element;
  }

  #elements(): HTMLMediaElement[] {
    return [...new Set([this.#sound, this.#video])].filter((element) => element !== null);
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
    const sound = this.#sound;
    if (sound && !sound.ended) return sound.currentTime;
    return ((performance.now() - this.#clockStart) / 1000) * this.#state.speed;
  }

  #seek(to: number): void {
    this.#at = Math.max(0, Math.min(this.#end(), to));
    this.#clockStart = performance.now() - (this.#at / this.#state.speed) * 1000;
    if (this.#sound) this.#sound.currentTime = this.#at;
    this.#seekVideo();
  }

  #seekVideo(): void {
    if (this.#video && Math.abs(this.#video.currentTime - this.#at) > 0.0005)
      this.#video.currentTime = this.#at;
  }

  #run(): void {
    cancelAnimationFrame(this.#frame);
    const step = () => {
      if (!this.#state.playing) return;
      const { stretch, looping } = this.#state;
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
      this.#keepTogether(now);
      this.#tell();
      this.#frame = requestAnimationFrame(step);
    };
    this.#frame = requestAnimationFrame(step);
  }

  /** Brings a picture with a sound of its own elsewhere back to the sound when it strays. */
  #keepTogether(now: number): void {
    const video = this.#video;
    if (
      video &&
      video !== this.#sound &&
      !video.seeking &&
      Math.abs(video.currentTime - now) > 0.06
    )
      video.currentTime = now;
  }

  #tell(): void {
    const { time } = this;
    for (const follower of this.#followers) follower(time);
  }

  #set(part: Partial<PlayerState>): void {
    this.#state = { ...this.#state, ...part };
    for (const watcher of this.#watchers) watcher();
  }
}

export const player = new Player();
