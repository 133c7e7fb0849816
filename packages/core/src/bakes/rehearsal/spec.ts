import { plainJson } from '../../json/plain-json';
import { REHEARSAL_VERSION, type RehearsalResult } from '../../cells/rehearsal-result';
import { isJsonTable } from '../../model/json';
import type { BakeSpec } from '../bake-spec';
import { needsSections, sectionsAmong } from '../section/needs-sections';
import { makeRehearsal } from './make-rehearsal';
import { rehearsalFault, rehearsalReads } from './rehearsal-reads';

export const REHEARSAL: BakeSpec<'rehearsal'> = {
  words: { one: 'rehearsal', many: 'rehearsals' },
  version: REHEARSAL_VERSION,
  records: ['piece', 'kit', 'target', 'device', 'cellGrid', 'rehearsal'],
  subjects: ({ rehearsals, grid, devices }) =>
    grid ? rehearsals.filter(({ device }) => Object.hasOwn(devices, device)).map(({ id }) => id) : [],
  fault: rehearsalFault,
  needs: (scene) => needsSections(scene, null),
  reads: rehearsalReads,
  readsFloors: true,
  // The pieces tell by the digests of their collisions what carries.
  hashed: ({ level, strata, pieces, kits, kitLoads, grid, placed, rehearsal, device }) =>
    plainJson({ level, strata, pieces, kits, kitLoads, grid, ...(placed ? { placed } : {}), rehearsal, device }),
  make: (reads, needed, context) => makeRehearsal(reads, sectionsAmong(needed), context),
  parts: () => ({}),
  summary: ({ findings, figures, late }) => ({ findings, figures, late: late.length }),
  check: (value): value is RehearsalResult =>
    isJsonTable(value) && value['version'] === REHEARSAL_VERSION && isJsonTable(value['cut']),
};
