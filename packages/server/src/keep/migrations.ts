/** The steps by which the database came to its present shape, oldest first. */
import { Migration } from '@mikro-orm/migrations';

class Beginning extends Migration {
  override up(): void {
    this.addSql(`create table programme (
      id text primary key, version integer not null, title text not null, summary text not null,
      created integer not null, changed integer not null, deleted integer)`);
    this.addSql(`create table entity (
      programme text not null references programme (id) on delete cascade,
      kind text not null, id text not null, body text not null,
      primary key (programme, kind, id)) without rowid`);
    this.addSql(`create table step (
      programme text not null references programme (id) on delete cascade,
      version integer not null, id text not null, client text not null, name text not null,
      changes text not null, undoes text, redoes text, kept integer not null,
      primary key (programme, version))`);
    this.addSql('create unique index step_id on step (programme, id)');
    this.addSql(`create table material (
      hash text primary key, bytes integer not null, media_type text not null, kept integer not null)`);
  }
}

/** Steps name the step that they go with. */
class StepsInGroups extends Migration {
  override up(): void {
    this.addSql('alter table step add column goes_with text');
  }
}

/** Jobs that write what leaves, in parts. */
class Jobs extends Migration {
  override up(): void {
    this.addSql(`create table job (
      id text primary key, programme text not null references programme (id) on delete cascade,
      name text not null, writing text not null, state text not null, run integer not null,
      asked integer not null, problem text, written text, sending text)`);
    this.addSql(`create table job_part (
      job text not null references job (id) on delete cascade,
      name text not null, frames integer not null, made integer, found text,
      primary key (job, name))`);
  }
}

export const MIGRATIONS = [
  { name: '2026-11-25-beginning', class: Beginning },
  { name: '2026-11-29-steps-in-groups', class: StepsInGroups },
  { name: '2026-11-30-jobs', class: Jobs },
];
