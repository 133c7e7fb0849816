import { boxesBench } from './core/boxes.bench';
import { burrowBench } from './core/burrow.bench';
import { checksBench } from './core/checks.bench';
import { chainBench } from './core/chain.bench';
import { columnsBench } from './core/columns.bench';
import { meshMemoryBench } from './core/mesh-memory.bench';
import { meshesBench } from './core/meshes.bench';
import { readerBench } from './core/reader.bench';
import { rehearsalBench } from './core/rehearsal.bench';
import { unlockBench } from './core/unlock.bench';
import { sightBench } from './core/sight.bench';
import { bulkBench } from './server/bulk.bench';
import { editsBench } from './server/edits.bench';
import { historyBench } from './server/history.bench';
import { loopBench } from './server/loop.bench';
import { crowdBench } from './web/crowd.bench';
import { openingBench } from './web/opening.bench';
import { plateBench } from './web/plate.bench';
import { setsBench } from './web/sets.bench';
import type { Row } from './measure';

const BENCHES: Readonly<Record<string, () => Promise<Row[]>>> = {
  sight: sightBench,
  burrow: burrowBench,
  chain: chainBench,
  meshes: meshesBench,
  'mesh-memory': meshMemoryBench,
  columns: columnsBench,
  reader: readerBench,
  rehearsal: rehearsalBench,
  unlock: unlockBench,
  boxes: boxesBench,
  checks: checksBench,
  edits: editsBench,
  bulk: bulkBench,
  history: historyBench,
  loop: loopBench,
  crowd: crowdBench,
  plate: plateBench,
  sets: setsBench,
  opening: openingBench,
};

/** `./stravel bench [name] [--json]`: every benchmark, or one. Exit code 1 when a goal is missed, 2 for a wrong call. */
const parameters = process.argv.slice(2);
const asJson = parameters.includes('--json');
const wanted = parameters.filter((one) => !one.startsWith('--'));
const unknown = wanted.find((name) => !Object.hasOwn(BENCHES, name));
if (unknown !== undefined) {
  process.stderr.write(`stravel: there is no benchmark ${unknown}; there are: ${Object.keys(BENCHES).join(', ')}\n`);
  process.exit(2);
}
const results: Record<string, Row[]> = {};
for (const name of wanted.length > 0 ? wanted : Object.keys(BENCHES)) {
  results[name] = await BENCHES[name]();
  if (asJson) continue;
  process.stdout.write(`\n${name}\n`);
  for (const row of results[name]) {
    const verdict = row.goal === undefined ? '' : `   ${row.isMet ? 'met' : 'MISSED'}: ${row.goal}`;
    process.stdout.write(`  ${row.name.padEnd(58)} ${String(row.value)}${verdict}\n`);
  }
}
if (asJson) process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
