/** Writes the JSON Schemas of the files that are written: `npx tsx scripts/schema.ts`. */
import { writeFile } from 'node:fs/promises';
import { patternFileSchema, programmeSchema } from '@cadence/core/programme/jsonSchema.ts';

for (const [name, schema] of [
  ['programme', programmeSchema()],
  ['patterns', patternFileSchema()],
] as const) {
  const file = new URL(`../docs/${name}.schema.json`, import.meta.url);
  await writeFile(file, `${JSON.stringify(schema, null, 2)}\n`);
}
