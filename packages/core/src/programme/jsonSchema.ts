/** The JSON Schema (draft 2020-12) of a programme that is written as one file, made from the shapes it is checked with. */
import type * as yup from 'yup';
import { tableOf } from './programme.ts';
import { FILE_FORMAT } from './fileFormat.ts';
import { patternFileShape, shapes, wholeFields } from './schema.ts';

type Json = Record<string, unknown>;
type Described = yup.SchemaDescription & Partial<yup.SchemaObjectDescription>;

/** What a test of a shape comes to in a schema. */
function limitOf(type: string, name: string | undefined, params: Json = {}): Json {
  const length = type === 'array' ? 'Items' : 'Length';
  switch (name) {
    case 'integer':
      return { type: 'integer' };
    case 'min':
      return { [type === 'number' ? 'minimum' : `min${length}`]: params.min };
    case 'max':
      return { [type === 'number' ? 'maximum' : `max${length}`]: params.max };
    case 'matches': {
      const { source, flags } = params.regex as RegExp;
      // Schemas know no flags; where case does not count, both are said.
      return { pattern: flags.includes('i') ? source.replace(/a-f/g, 'a-fA-F') : source };
    }
    default:
      return {};
  }
}

function schemaOf(described: Described, required?: readonly string[]): Json {
  const { type, tests, oneOf, nullable } = described;
  const schema: Json = { type };
  for (const { name, params } of tests) Object.assign(schema, limitOf(type, name, params));
  if (type === 'object') {
    const fields = Object.entries(described.fields ?? {}) as [string, Described][];
    schema.properties = Object.fromEntries(fields.map(([name, field]) => [name, schemaOf(field)]));
    schema.required =
      required ?? fields.filter(([, { optional }]) => !optional).map(([name]) => name);
    schema.additionalProperties = false;
  }
  if (type === 'array') {
    const { innerType } = described as unknown as { innerType?: Described };
    if (innerType) schema.items = schemaOf(innerType);
  }
  const known = oneOf.filter((value) => value !== null);
  if (known.length > 0) schema.enum = nullable ? [...known, null] : known;
  return nullable ? { ...schema, type: [schema.type, 'null'] } : schema;
}

/** The schema of `{ format, programme }`. */
export function programmeSchema(): Json {
  const kinds = Object.keys(shapes) as (keyof typeof shapes)[];
  const $defs = Object.fromEntries(
    kinds.map((kind) => [
      kind,
      schemaOf(shapes[kind].describe() as unknown as Described, wholeFields[kind]),
    ]),
  );
  const tables = kinds.flatMap((kind) => {
    if (kind === 'programme') return [];
    const additionalProperties = { $ref: `#/$defs/${kind}` };
    return [[tableOf[kind], { type: 'object', additionalProperties }]];
  });
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'A programme of Woven Cadence, written as one file',
    description:
      'Times are whole ticks, 705,600,000 a second; lengths on screen are pixels of the frame.',
    type: 'object',
    properties: {
      format: { const: FILE_FORMAT },
      programme: {
        type: 'object',
        properties: { facts: { $ref: '#/$defs/programme' }, ...Object.fromEntries(tables) },
        required: ['facts', 'materials', 'strands', 'cues', 'pieces'],
        additionalProperties: false,
      },
    },
    required: ['format', 'programme'],
    $defs,
  };
}

/** The schema of a file of patterns. */
export function patternFileSchema(): Json {
  const whole = schemaOf(patternFileShape.describe() as unknown as Described);
  const pattern = schemaOf(shapes.pattern.describe() as unknown as Described, wholeFields.pattern);
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Patterns of Woven Cadence, written as one file',
    description:
      'Lengths on screen are pixels of a frame of `height`; what is counted in frames is so at `rate` frames a second.',
    ...whole,
    properties: {
      ...(whole.properties as Json),
      patterns: { type: 'array', minItems: 1, maxItems: 1000, items: pattern },
    },
  };
}
