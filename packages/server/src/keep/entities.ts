/** The tables of the database. */
import { defineEntity, p, type InferEntity } from '@mikro-orm/core';

/** One programme: its state counts up with every kept step. */
export const ProgrammeRow = defineEntity({
  name: 'ProgrammeRow',
  tableName: 'programme',
  properties: {
    id: p.string().primary(),
    version: p.integer(),
    title: p.string(),
    /** What the list of programmes shows, as JSON. */
    summary: p.text(),
    /** Instants in milliseconds since 1970. */
    created: p.bigint('number'),
    changed: p.bigint('number'),
    deleted: p.bigint('number').nullable(),
  },
});

/** One entity of a programme, as JSON. */
export const EntityRow = defineEntity({
  name: 'EntityRow',
  tableName: 'entity',
  properties: {
    programme: p.string().primary(),
    kind: p.string().primary(),
    id: p.string().primary(),
    body: p.text(),
  },
});

/** One kept step of a programme: what was done, and which step it takes back or does again. */
export const StepRow = defineEntity({
  name: 'StepRow',
  tableName: 'step',
  properties: {
    programme: p.string().primary(),
    version: p.integer().primary(),
    id: p.string(),
    client: p.string(),
    name: p.string(),
    changes: p.text(),
    undoes: p.string().nullable(),
    redoes: p.string().nullable(),
    goesWith: p.string().nullable(),
    kept: p.bigint('number'),
  },
});

/** One file of material, kept once for each content. */
export const MaterialRow = defineEntity({
  name: 'MaterialRow',
  tableName: 'material',
  properties: {
    hash: p.string().primary(),
    bytes: p.bigint('number'),
    mediaType: p.string(),
    kept: p.bigint('number'),
  },
});

/** A job that writes what leaves a programme. */
export const JobRow = defineEntity({
  name: 'JobRow',
  tableName: 'job',
  properties: {
    id: p.string().primary(),
    programme: p.string(),
    name: p.string(),
    /** What is written, as JSON. */
    writing: p.text(),
    state: p.string(),
    /** How often it was begun. */
    run: p.integer(),
    asked: p.bigint('number'),
    problem: p.text().nullable(),
    /** What was written, as JSON. */
    written: p.text().nullable(),
    /** Where it was sent, as JSON. */
    sending: p.text().nullable(),
  },
});

/** A part of a job that is done on its own. */
export const JobPartRow = defineEntity({
  name: 'JobPartRow',
  tableName: 'job_part',
  properties: {
    job: p.string().primary(),
    name: p.string().primary(),
    frames: p.integer(),
    /** When it was made; null until then. */
    made: p.bigint('number').nullable(),
    /** What was found in making it, as JSON. */
    found: p.text().nullable(),
  },
});

export type ProgrammeRecord = InferEntity<typeof ProgrammeRow>;
export type StepRecord = InferEntity<typeof StepRow>;
export type JobRecord = InferEntity<typeof JobRow>;
export type JobPartRecord = InferEntity<typeof JobPartRow>;
export type MaterialRecord = InferEntity<typeof MaterialRow>;

export const ENTITIES = [ProgrammeRow, EntityRow, StepRow, MaterialRow, JobRow, JobPartRow];
