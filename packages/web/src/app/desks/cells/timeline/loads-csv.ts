import type { RehearsalResult } from '@stravel/core';

/** Every load of a walk as a row of a file, in the order in which they were asked for; times in milliseconds. */
export function loadsCsvRows({ loads, late }: Pick<RehearsalResult, 'loads' | 'late'>): string[][] {
  const head = ['What', 'Name', 'Bytes on disk', 'Bytes in memory', 'Asked, ms', 'Read from, ms', 'Read to, ms'];
  const rows = loads.map((load) => {
    const { what, number, name, diskBytes, memoryBytes, askedMs, readStartMs, readEndMs, unpackEndMs, readyMs } = load;
    const ofCell = what === 'cell' ? late.filter(({ cell }) => cell === number) : [];
    // A cell can be loaded more than once; what came late belongs to the load that ended it.
    const lateMs = ofCell.find((one) => one.readyMs === readyMs)?.lateMs ?? 0;
    const numbers = [diskBytes, memoryBytes, askedMs, readStartMs, readEndMs, unpackEndMs, readyMs, lateMs];
    return [what, name, ...numbers.map(String), String(load.droppedMs ?? '')];
  });
  return [[...head, 'Unpacked, ms', 'Ready, ms', 'Late by, ms', 'Unloaded, ms'], ...rows];
}
