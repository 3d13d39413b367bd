/** Writes the JSON Schema of a programme's file: `npx tsx scripts/schema.ts`. */
import { writeFile } from 'node:fs/promises';
import { programmeSchema } from '@cadence/core/programme/jsonSchema.ts';

const file = new URL('../docs/programme.schema.json', import.meta.url);
await writeFile(file, `${JSON.stringify(programmeSchema(), null, 2)}\n`);
