/**
 * Reading rows of which a text may be damaged.
 *
 * The driver ends the whole process at a text that is not UTF-8, so every text is read as the bytes that it is, and
 * decoded here.
 */
import type { EntityManager } from '@mikro-orm/libsql';

const decoder = new TextDecoder('utf-8', { fatal: true });

/** A text of a row; undefined where it is not UTF-8. */
function textOf(value: unknown): string | null | undefined {
  if (value === null || typeof value === 'string') return value;
  try {
    return decoder.decode(value as ArrayBuffer | Uint8Array);
  } catch {
    return undefined;
  }
}

/** A row as it was read: numbers are numbers, and a text that is damaged is undefined. */
export type ReadRow<Text extends string, Figure extends string> = {
  readonly [Name in Text]: string | null | undefined;
} & { readonly [Name in Figure]: number };

/**
 * Rows of a table.
 *
 * @param rest  the SQL after the table's name, with a `?` for each of the values
 */
export async function readRows<Text extends string, Figure extends string = never>(
  em: EntityManager,
  table: string,
  {
    texts,
    figures = [],
  }: { readonly texts: readonly Text[]; readonly figures?: readonly Figure[] },
  rest: string,
  values: readonly (string | number)[] = [],
): Promise<ReadRow<Text, Figure>[]> {
  const columns = [...texts.map((name) => `cast(${name} as blob) as ${name}`), ...figures];
  const rows = await em
    .getConnection()
    .execute<Record<string, unknown>[]>(`select ${columns.join(', ')} from ${table} ${rest}`, [
      ...values,
    ]);
  return rows.map((row) => {
    const read = Object.fromEntries([
      ...texts.map((name) => [name, textOf(row[name])] as const),
      ...figures.map((name) => [name, row[name]] as const),
    ]);
    return read as ReadRow<Text, Figure>;
  });
}

/** JSON of a row's text; undefined where the text or the JSON is damaged. */
export function jsonOf<T>(text: string | null | undefined): T | undefined {
  try {
    return typeof text === 'string' ? (JSON.parse(text) as T) : undefined;
  } catch {
    return undefined;
  }
}
