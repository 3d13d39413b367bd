/** Loads faces as text needs them, and shapes with those that are loaded. */
import type { Line } from '@cadence/core/text/lines.ts';
import { plainLine } from '@cadence/core/text/lines.ts';
import { forgetShaped } from '@cadence/core/scene/forget.ts';
import type { Cut, ShapedLetter, ShapedLine, TextShaper } from '@cadence/core/scene/shaper.ts';
import { Face } from './face.ts';
import { shapeLetters, shapeLine } from './shapeLine.ts';
import { formsFor, lendsNothing, SHELF, shelfPath, type ShelfFamily } from './shelf.ts';

/** Fetches the bytes of a face of the shelf, named by {@link shelfPath}. */
export type FaceLoader = (path: string) => Promise<Uint8Array>;

/** The number of lines cached for a family: those of the longest rolls, twice. */
const MOST_COVERED = 40_000;

/** The code points of a text that a font must have to show it. */
const visibleOf = (text: string): number[] =>
  [...text.replace(/[\s\p{C}]/gu, '')].map((character) => character.codePointAt(0) ?? 0);

/** How much heavier bold text is than the text around it. */
const BOLDER = 300;

export class FontShelf implements TextShaper {
  readonly #load: FaceLoader;
  readonly #orders = new Map<string, Face[][]>();
  /** By family; each has one list of faces, or one for each range of letters that it has in files of their own. */
  readonly #faces = new Map<string, Face[][]>();
  readonly #byId = new Map<string, Face>();
  readonly #loading = new Map<string, Promise<void>>();
  /** Lines that can be shaped in a family: of a long text, few are new each time. Faces only ever come to the shelf. */
  readonly #covered = new Map<string, Set<string>>();

  constructor(load: FaceLoader) {
    this.#load = load;
  }

  /**
   * Makes sure that `lines` can be shaped in `family`: loads it, and then the families that can lend
   * what it lacks. Families that nobody has are passed over, and the first of the shelf stands in.
   *
   * @returns whether anything was loaded, so that what was drawn before has to be drawn again
   */
  async prepare(family: string, lines: readonly Line[]): Promise<boolean> {
    const before = this.#byId.size;
    const named = SHELF.find((each) => each.family === family);
    if (named) await this.#loadFamily(named);
    const text = lines.map(plainLine).join('');
    for (const line of lines) {
      const forms = formsFor(plainLine(line));
      const other = SHELF.find((each) => each.family === forms);
      if (other && !this.#hasAll(this.#faces.get(family) ?? [], line))
        await this.#loadFamily(other);
    }
    for (const other of SHELF) {
      if (this.#faces.size > 0 && this.#covers(family, lines)) break;
      if (other.lends?.test(text) || this.#faces.size === 0) await this.#loadFamily(other);
    }
    if (this.#byId.size === before) return false;
    forgetShaped(this);
    return true;
  }

  /** Whether a family can be had, or another one stands in for it. */
  knows(family: string): boolean {
    return this.#faces.has(family) || SHELF.some((each) => each.family === family);
  }

  /**
   * Puts a font of the editor's own on the shelf.
   *
   * @throws BrokenFont where the bytes are no TTF or OTF font
   */
  add(id: string, bytes: Uint8Array, family: string): void {
    if (this.#byId.has(id)) return;
    this.#keep(new Face(id, bytes, { family, bold: false, italic: false }));
    forgetShaped(this);
  }

  face(id: string): Face {
    const face = this.#byId.get(id);
    if (!face) throw new Error(`The face ${id} is not loaded.`);
    return face;
  }

  metrics(family: string): { ascent: number; descent: number } {
    const face = this.#order(family, '')[0]?.[0];
    if (!face) return { ascent: 1, descent: 0.25 };
    return { ascent: face.ascent / face.unitsPerEm, descent: face.descent / face.unitsPerEm };
  }

  /** What a family can be set in beside bold: the least and the most weight, and width in per cent; none where it can't. */
  axesOf(family: string): Face['axes'] {
    return this.#faces.get(family)?.[0]?.[0]?.axes ?? {};
  }

  shape(line: Line, family: string, size: number, spacing = 0, cut: Cut = {}): ShapedLine {
    return shapeLine(line, this.#order(family, plainLine(line), cut), size, spacing);
  }

  letters(
    line: Line,
    family: string,
    size: number,
    spacing = 0,
    cut: Cut = {},
  ): readonly ShapedLetter[] {
    return shapeLetters(line, this.#order(family, plainLine(line), cut), size, spacing);
  }

  /**
   * The loaded families in which to look for a character: the wanted one, then the programme's own, then those that lend.
   * The same array until a face comes.
   */
  #order(family: string, text: string, { weight, width }: Cut = {}): Face[][] {
    // Which other families happen to be loaded must not show, and so neither which of those with Han characters are.
    const forms = formsFor(text);
    const key = `${family}\n${weight ?? ''} ${width ?? ''}\n${forms ?? ''}`;
    const known = this.#orders.get(key);
    if (known) return known;
    const wanted = (this.#faces.get(family) ?? []).map((faces) =>
      faces.flatMap((face) => this.#cutsOf(face, weight ?? undefined, width ?? undefined)),
    );
    const others = [...this.#faces]
      .filter(([name]) => name !== family && !lendsNothing(name))
      .flatMap(([, groups]) => groups);
    const shelfOrder = (faces: Face[]) =>
      faces[0]?.family === forms ? 0 : SHELF.findIndex((each) => each.family === faces[0]?.family);
    others.sort((a, b) => shelfOrder(a) - shelfOrder(b));
    const order = [...wanted, ...others];
    this.#orders.set(key, order);
    return order;
  }

  /** A face as it is set: an ordinary and a bold one of it, where one file has all weights. */
  #cutsOf(face: Face, weight: number | undefined, wdth: number | undefined): Face[] {
    if (!face.axes.wght && !face.axes.wdth) return [face];
    const isOnShelf = SHELF.some((each) => each.family === face.family);
    const [usual, bold] = isOnShelf ? [500, 800] : [undefined, 700];
    const ordinary = weight ?? usual;
    const stronger = weight === undefined ? bold : weight + BOLDER;
    const wide = wdth === undefined ? {} : { wdth };
    const made = [
      face.cut({ ...(ordinary !== undefined && { wght: ordinary }), ...wide }, false),
      ...(face.axes.wght ? [face.cut({ wght: stronger, ...wide }, true)] : []),
    ];
    for (const each of made) this.#byId.set(each.id, each);
    return made;
  }

  familiesWith(text: string): string[] {
    const characters = visibleOf(text);
    return [...this.#faces]
      .filter(([, groups]) =>
        characters.every((code) => groups.some(([face]) => face?.has(code) ?? false)),
      )
      .map(([family]) => family);
  }

  #hasAll(groups: readonly Face[][], line: Line): boolean {
    return visibleOf(plainLine(line)).every((code) => groups.some(([face]) => face?.has(code)));
  }

  #covers(family: string, lines: readonly Line[]): boolean {
    const fine = this.#covered.get(family) ?? new Set<string>();
    this.#covered.set(family, fine);
    if (fine.size > MOST_COVERED) fine.clear();
    return lines.every((line) => {
      const text = plainLine(line);
      if (fine.has(text)) return true;
      const has = this.#hasAll(this.#order(family, text), line);
      if (has) fine.add(text);
      return has;
    });
  }

  #loadFamily(family: ShelfFamily): Promise<void> {
    let loading = this.#loading.get(family.family);
    if (!loading) {
      loading = this.#fetchFamily(family).catch((error: unknown) => {
        this.#loading.delete(family.family);
        throw error;
      });
      this.#loading.set(family.family, loading);
    }
    return loading;
  }

  async #fetchFamily(family: ShelfFamily): Promise<void> {
    const paths = family.faces.map((of) => shelfPath(family, of));
    const files = await Promise.all(paths.map((path) => this.#load(path)));
    family.faces.forEach((of, at) => {
      const bytes = files[at];
      if (bytes) this.#keep(new Face(paths[at] ?? '', bytes, { ...of, family: family.family }));
    });
  }

  #keep(face: Face): void {
    this.#orders.clear();
    this.#byId.set(face.id, face);
    const groups = this.#faces.get(face.family) ?? [];
    const own = groups.find(([first]) => first?.part === face.part);
    if (own) own.push(face);
    else groups.push([face]);
    this.#faces.set(face.family, groups);
  }
}
