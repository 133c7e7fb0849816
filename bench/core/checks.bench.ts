import { SHAPES, boxPlanes, recordFaults, type Block, type Placement } from '@stravel/core';
import { atMost, inTurns, timingText, type Row } from '../measure';

const ROUNDS = 9;
const CHECKS = 50000;
/** Its schema alone takes so much longer that a hundredth will do. */
const WORDED = CHECKS / 100;
const MAX_MICROSECONDS = 3;

const placements = Array.from({ length: CHECKS }, (_unused, i): Placement => ({
  id: `p${i}`,
  piece: `piece-${i % 500}`,
  position: [i % 127, 0, (i % 1270) / 10],
  turn: [(i * 7) % 360, 0, 0],
  scale: [1, 1, 1],
  ...(i % 5 === 0 ? { group: 'g1', values: { lit: true } } : {}),
}));
const blocks = Array.from({ length: CHECKS / 10 }, (_unused, i): Block => ({
  id: `b${i}`,
  name: `block ${i}`,
  position: [i % 127, 0, i % 91],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 3, 2]),
  sight: 'hides',
  material: 'brick',
}));

/** Checking sound records of two kinds, against their own Yup schemas. */
export async function checksBench(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [kind, records, limit] of [
    ['placement', placements, MAX_MICROSECONDS],
    ['block', blocks, undefined],
  ] as const) {
    let unsound = 0;
    const [ours, yups] = await inTurns(
      ROUNDS,
      () => {
        for (const record of records) if (!SHAPES[kind].check(record)) unsound++;
      },
      () => {
        for (const record of records.slice(0, WORDED))
          if (!SHAPES[kind].yup.isValidSync(record, { strict: true })) unsound++;
      },
      false,
    );
    const each = (ours.medianMs * 1000) / records.length;
    const eachOfYup = (yups.medianMs * 1000) / WORDED;
    rows.push(
      { name: `${records.length} ${kind}s checked`, value: timingText(ours) },
      { name: `${WORDED} ${kind}s by Yup`, value: timingText(yups) },
      ...(limit === undefined
        ? [{ name: `microseconds a ${kind}`, value: each.toFixed(2) }]
        : [atMost(`microseconds a ${kind}`, each, limit)]),
      atMost(`check / Yup, a ${kind}`, each / eachOfYup, 0.1, 4),
      { name: `${kind}s refused`, value: unsound, goal: 'none', isMet: unsound === 0 },
    );
  }
  // What a block's planes enclose is asked beside its fields.
  const start = performance.now();
  for (const block of blocks) recordFaults('block', block);
  rows.push({
    name: 'microseconds a block, with what its planes enclose',
    value: (((performance.now() - start) * 1000) / blocks.length).toFixed(1),
  });
  return rows;
}
