/**
 * The stage: fetches what a frame needs (fonts, still pictures, the exact frame of a film) and draws it. The same in a
 * window, in a worker and on Node.
 */
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import type { DrawingItem, DrawingList } from '@cadence/core/scene/drawing.ts';
import { asSet } from '@cadence/core/scene/layout.ts';
import { styleOf, styleOfStrand } from '@cadence/core/programme/patterns.ts';
import { strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Cue, Id, Material, Programme } from '@cadence/core/programme/programme.ts';
import type { Line } from '@cadence/core/text/lines.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import type { Canvas2D } from './canvas.ts';
import { drawScene } from './drawScene.ts';
import { FontShelf, type FaceLoader } from './fontShelf.ts';
import type { MakeCanvas } from './halved.ts';

/** A frame as it lies in the film: luma, then both chroma planes (I420), 8 bits from 16 to 235, rows without gaps. Its data may be changed, and is there until the next frame is asked for. */
export interface FramePlanes {
  readonly data: Uint8Array<ArrayBuffer>;
  readonly width: number;
  readonly height: number;
  readonly matrix: 'bt601' | 'bt709' | 'bt2020';
}

/** The frames of a film. */
export interface FilmFrames {
  /** The last frame whose time is not after an instant; before all frames, the first. Undefined where there is none. */
  frameAt(time: Ticks): Promise<CanvasImageSource | undefined>;
  /** The same frame as it lies in the film; undefined where it lies otherwise than {@link FramePlanes}, or is turned. */
  planesAt(time: Ticks): Promise<FramePlanes | undefined>;
  close(): Promise<void>;
}

/** How a place makes canvases. */
export interface Surfaces {
  readonly Pixels: typeof ImageData;
  make(width: number, height: number): OffscreenCanvas;
  /** @param pixels  red, green, blue and opacity, row by row */
  fromPixels(
    pixels: Uint8ClampedArray<ArrayBuffer>,
    width: number,
    height: number,
  ): CanvasImageSource;
  png(surface: OffscreenCanvas): Promise<Uint8Array>;
}

/** Where a stage has its files from. Each rejects where a file is gone or cannot be read. */
export interface Files {
  readonly face: FaceLoader;
  font(material: Material): Promise<Uint8Array>;
  image(material: Material): Promise<CanvasImageSource>;
  film(material: Material): Promise<FilmFrames>;
  /** Makes a path of SVG path data; where the place has `Path2D`, a call of it. */
  makePath(data: string): Path2D;
  readonly makeCanvas: MakeCanvas;
}

/** The pictures that a list needs. */
export interface Pictures {
  readonly of: ReadonlyMap<Id, CanvasImageSource>;
  /** Materials whose picture cannot be had; {@link Stage.troubleOf} says why. */
  readonly without: readonly Material[];
}

/** Of a list that has text alone. */
export const NO_PICTURES: Pictures = { of: new Map(), without: [] };

type Pictured = DrawingItem & { readonly kind: 'picture' | 'image' };

export class Stage {
  readonly shelf: FontShelf;
  readonly #files: Files;
  readonly #ownFonts = new Map<string, Promise<void>>();
  readonly #prepared = new WeakSet<Passage>();
  /** By hash: what was fetched stays. One that failed is not asked for again. */
  readonly #images = new Map<string, Promise<CanvasImageSource | undefined>>();
  readonly #films = new Map<string, Promise<FilmFrames | undefined>>();
  readonly #troubles = new Map<string, unknown>();

  constructor(files: Files) {
    this.#files = files;
    this.shelf = new FontShelf(files.face);
  }

  /** Why the file of a material could not be had; undefined if it could. */
  troubleOf({ hash }: Material): unknown {
    return this.#troubles.get(hash);
  }

  /**
   * Puts the fonts that belong to the programme on the shelf. One that is gone is passed over.
   *
   * @returns whether any was not there yet
   */
  async ownFonts({ materials }: Pick<Programme, 'materials'>): Promise<boolean> {
    const fonts = Object.values(materials).filter(({ kind }) => kind === 'font');
    const fresh = fonts.filter(({ hash }) => !this.#ownFonts.has(hash));
    for (const font of fresh) {
      const { hash, family } = font;
      const coming = this.#files.font(font).then((bytes) => {
        this.shelf.add(hash, bytes, family ?? 'Unnamed');
      });
      this.#ownFonts.set(
        hash,
        coming.catch((error: unknown) => void this.#troubles.set(hash, error)),
      );
    }
    await Promise.all(fonts.map(({ hash }) => this.#ownFonts.get(hash)));
    return fresh.length > 0;
  }

  /**
   * Makes sure that a passage can be shaped.
   *
   * @returns whether a font came to the shelf
   */
  async passage(programme: Programme, passage: Passage): Promise<boolean> {
    const own = await this.ownFonts(programme);
    if (!own && this.#prepared.has(passage)) return false;
    const { family, lines } = setIn(passage, programme.facts);
    const fresh = await this.shelf.prepare(family, lines);
    this.#prepared.add(passage);
    return fresh || own;
  }

  /**
   * Makes sure that the text of cues can be shaped, and that of every strand to come.
   *
   * @returns whether a font came to the shelf, so that what was measured before has to be measured again
   */
  async fonts(
    programme: Programme,
    cues: readonly Cue[] = Object.values(programme.cues),
  ): Promise<boolean> {
    let fresh = await this.ownFonts(programme);
    const byFamily = new Map<string, Line[]>();
    for (const strand of strandsInOrder(programme))
      byFamily.set(styleOfStrand(programme, strand).family, []);
    for (const cue of cues) {
      const passage = programme.passages[cue.passage ?? ''];
      if (passage) {
        fresh = (await this.passage(programme, passage)) || fresh;
        continue;
      }
      const style = styleOf(programme, cue);
      const { family } = style;
      const lines = byFamily.get(family) ?? [];
      lines.push(...cue.text.map((line) => asSet(line, style)));
      byFamily.set(family, lines);
    }
    for (const [family, lines] of byFamily)
      fresh = (await this.shelf.prepare(family, lines)) || fresh;
    return fresh;
  }

  /**
   * Fetches the pictures that a list needs.
   *
   * @param films  whether films are among them; not where something else is drawn in their place
   */
  async pictures(
    list: DrawingList,
    { materials }: Pick<Programme, 'materials'>,
    films = true,
  ): Promise<Pictures> {
    const of = new Map<Id, CanvasImageSource>();
    const without: Material[] = [];
    for (const item of list.items) {
      if (item.kind !== 'image' && !(films && item.kind === 'picture')) continue;
      const material = materials[item.material];
      if (!material) continue;
      const picture = await this.#pictureOf(item, material);
      if (picture) of.set(item.material, picture);
      else without.push(material);
    }
    return { of, without };
  }

  async #pictureOf(item: Pictured, material: Material): Promise<CanvasImageSource | undefined> {
    if (item.kind === 'image')
      return this.#kept(this.#images, material, () => this.#files.image(material));
    const film = await this.#film(material);
    try {
      return await film?.frameAt(item.at);
    } catch (error) {
      this.#troubles.set(material.hash, error);
      return undefined;
    }
  }

  /** A film's frame as it lies in the film, for what writes it again; undefined where it has to be drawn. */
  async planes(
    item: DrawingItem & { readonly kind: 'picture' },
    material: Material,
  ): Promise<FramePlanes | undefined> {
    const film = await this.#film(material);
    return film?.planesAt(item.at).catch(() => undefined);
  }

  #film(material: Material): Promise<FilmFrames | undefined> {
    return this.#kept(this.#films, material, () => this.#files.film(material));
  }

  #kept<T>(
    held: Map<string, Promise<T | undefined>>,
    { hash }: Material,
    fetch: () => Promise<T>,
  ): Promise<T | undefined> {
    const known = held.get(hash);
    if (known) return known;
    const coming = fetch().catch((error: unknown) => {
      this.#troubles.set(hash, error);
      return undefined;
    });
    held.set(hash, coming);
    return coming;
  }

  /**
   * Draws a list with the pictures that it needs.
   *
   * @param scale    pixels of the canvas for one pixel of the frame
   * @param standIn  drawn in the place of films, while they play
   */
  draw(
    canvas: Canvas2D,
    list: DrawingList,
    pictures: Pictures,
    scale = 1,
    standIn?: CanvasImageSource,
  ): void {
    const of = ({ material }: Pictured) => pictures.of.get(material);
    drawScene(
      canvas,
      list,
      {
        shelf: this.shelf,
        makePath: this.#files.makePath,
        make: this.#files.makeCanvas,
        quick: standIn !== undefined,
        picture: (item) => standIn ?? of(item),
        image: of,
      },
      scale,
    );
  }

  /** Lets go of the films. */
  async close(): Promise<void> {
    for (const film of this.#films.values()) await (await film)?.close();
    this.#films.clear();
  }
}
