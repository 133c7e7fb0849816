import { rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import type { Edit } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { timing, timingText, type Row } from '../measure';
import { openBenchFolder } from './bench-folder';

const [FEW, MANY] = [1000, 20000];
const ROUNDS = 9;
const GOAL_MS = 50;

/** The first page of a level's history with 20,000 edits in the log against one with 1,000: half of them are about the level. */
export async function historyBench(): Promise<Row[]> {
  const { server, folder, close } = await openBenchFolder(await smallCollection());
  const listener = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  const url = `http://127.0.0.1:${(listener.address() as AddressInfo).port}/api/collections/bench/levels/one/history`;
  const counts = [0, 0];
  const grow = async (to: number): Promise<void> => {
    for (let i = counts[0] + counts[1]; i < to; i++) {
      const which = i % 2;
      const before = counts[which]++;
      const operation = {
        document: 'records',
        kind: 'level' as const,
        id: which === 0 ? 'one' : 'two',
        field: 'values.count',
        before: before === 0 ? null : before,
        after: before + 1,
      };
      const edit: Edit = { id: `e${i}`, person: 'bench', label: 'count', undoes: null, operations: [operation] };
      await server.edits.append('bench', edit);
    }
  };
  const measure = async (): Promise<ReturnType<typeof timing>> => {
    const samples: number[] = [];
    for (let round = 0; round <= ROUNDS; round++) {
      const start = performance.now();
      const response = await fetch(url);
      const { edits } = (await response.json()) as { edits: unknown[] };
      if (edits.length !== 200) throw new Error(`the first page has ${edits.length} edits`);
      if (round > 0) samples.push(performance.now() - start);
    }
    return timing(samples);
  };
  await grow(FEW);
  const few = await measure();
  await grow(MANY);
  const many = await measure();
  listener.close();
  listener.closeAllConnections();
  await close();
  rmSync(folder, { recursive: true, force: true });
  const later = many.medianMs - few.medianMs;
  return [
    { name: `first page with ${FEW} edits`, value: timingText(few) },
    { name: `first page with ${MANY} edits`, value: timingText(many) },
    { name: 'later by', value: `${later.toFixed(1)} ms`, goal: `at most ${GOAL_MS} ms`, isMet: later <= GOAL_MS },
  ];
}
