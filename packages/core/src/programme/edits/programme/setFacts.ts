/** Edits of the programme as a whole: its facts, and the material that belongs to it. */
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { beatsInOrder, hitsInOrder, piecesInOrder } from '../../order.ts';
import type { Passage } from '../../passage.ts';
import { scaledPattern } from '../patterns/scaled.ts';
import type { Backdrop, Facts, Id, Material, Programme } from '../../programme.ts';

/** What of a crawl's look is in pixels. */
const IN_PIXELS = ['size', 'insetLeft', 'insetRight', 'softEdge', 'bandBlur', 'up'] as const;

/** A passage on a frame so much larger or smaller: it fills the same part of it, in the same time. */
function scaled({ kind, look, journey }: Passage, scale: number): Partial<Passage> {
  const fields: readonly string[] = kind === 'roll' ? ['size'] : IN_PIXELS;
  const larger = Object.entries(look).map(([field, value]) => [
    field,
    fields.includes(field) ? Math.round(Number(value) * scale) : value,
  ]);
  const { speed, skipStart, skipEnd } = journey;
  return {
    look: Object.fromEntries(larger),
    journey: {
      ...journey,
      speed: speed * scale,
      skipStart: Math.round(skipStart * scale),
      skipEnd: Math.round(skipEnd * scale),
    },
  } as Partial<Passage>;
}

/**
 * Sets facts of the programme. Another frame height takes the strands' text sizes along, so that
 * text fills the same part of the frame.
 */
export function setFacts(
  programme: Programme,
  part: Partial<Facts>,
  name = 'Set up programme',
): Edit {
  const scale = (part.frame?.height ?? programme.facts.frame.height) / programme.facts.frame.height;
  const strands = Object.values(programme.strands).flatMap((strand) => {
    const { size, margin, outlineWidth } = strand.style;
    const style = {
      ...strand.style,
      size: Math.round(size * scale),
      margin: Math.round(margin * scale),
      outlineWidth: Math.max(1, Math.round(outlineWidth * scale)),
    };
    return scale === 1 ? [] : update('strand', strand, { style });
  });
  const patterns = Object.values(programme.patterns).flatMap((pattern) =>
    scale === 1 ? [] : update('pattern', pattern, scaledPattern(pattern, scale)),
  );
  const passages = Object.values(programme.passages).flatMap((passage) =>
    scale === 1 ? [] : update('passage', passage, scaled(passage, scale)),
  );
  return {
    name,
    changes: [...update('programme', programme.facts, part), ...strands, ...patterns, ...passages],
  };
}

/** Sets what stands behind the text. */
export const setBackdrop = (programme: Programme, part: Partial<Backdrop>): Edit =>
  setFacts(programme, { backdrop: { ...programme.facts.backdrop, ...part } }, 'Set the background');

/**
 * Adds a material. The first sound becomes what is heard and the first film what is seen; the first
 * film also sets frame size, rate and length unless the editor has set them.
 */
export function addMaterial(programme: Programme, material: Material): Edit {
  const { facts } = programme;
  const film = material.kind === 'film' && material.picture?.shown && facts.picture === null;
  const sounds = material.sound !== null && facts.sound === null;
  const { picture } = material;
  const part: Partial<Facts> = {
    ...(film && { picture: material.id }),
    ...(sounds && { sound: material.id }),
    ...(film && facts.setBy === 'default' && picture
      ? {
          frame: { width: picture.width, height: picture.height },
          frameRate: picture.frameRate ?? facts.frameRate,
          length: material.length,
          setBy: 'film' as const,
        }
      : sounds && facts.setBy === 'default' && { length: material.length }),
  };
  const changes = [create('material', material), ...setFacts(programme, part).changes];
  return { name: `Bring in ${material.name}`, changes };
}

/** Takes a material away with what was found in it; the programme is silent or dark where it was in use. */
export function removeMaterial(programme: Programme, id: Id): Edit {
  const material = programme.materials[id];
  if (!material) return { name: 'Remove material', changes: [] };
  const { facts } = programme;
  const unused: Change[] = update('programme', facts, {
    sound: facts.sound === id ? null : facts.sound,
    picture: facts.picture === id ? null : facts.picture,
    ...(facts.backdrop.image === id && { backdrop: { ...facts.backdrop, image: null } }),
  });
  const found: Change[] = [
    ...piecesInOrder(programme, id).map((piece) => remove('piece', piece)),
    ...beatsInOrder(programme, id).map((beat) => remove('beat', beat)),
    ...hitsInOrder(programme, id).map((hit) => remove('hit', hit)),
    ...Object.values(programme.sounds)
      .filter((sound) => sound.material === id)
      .map((sound) => remove('sound', sound)),
  ];
  return {
    name: `Remove ${material.name}`,
    changes: [...unused, ...found, remove('material', material)],
  };
}
