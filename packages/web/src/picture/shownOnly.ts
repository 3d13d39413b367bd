/** What the picture shows of a programme. */
import { onlyStrand } from '@cadence/core/programme/order.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';

/** The programme with one strand alone, where the others are out of the way and there is such a strand. */
export const shownOnly = (programme: Programme, only: boolean, strand: Id): Programme =>
  only && strand in programme.strands ? onlyStrand(programme, strand) : programme;
