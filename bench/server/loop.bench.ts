import { rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { Worker } from 'node:worker_threads';
import {
  EDIT_LINES_TYPE,
  archiveCollection,
  boxPlanes,
  linesOfEdit,
  type Block,
  type CollectionContent,
  type Edit,
  type Json,
  type Operation,
  type Placement,
} from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { atMost, median, type Row } from '../measure';
import { STRATUM, manyPlacements } from './many-placements';
import { openBenchFolder } from './bench-folder';

const PLACEMENTS = 100000;
const CHANGES = 5000;
/** Of things that one edit adds; as many as an edit may have. */
const MAX_ADDED = 50000;
/** As many as can be restored by one edit later, with the others. */
const MAX_CHANGES = 40000;
const ROUNDS = 3;
const GOAL_MS = 100;
/** How often it is looked whether the loop still turns. */
const LOOK_MS = 2;

/** The longest that each request holds the server's event loop, over a level of 100,000 placements. */
export async function loopBench(): Promise<Row[]> {
  const content = await manyPlacements(PLACEMENTS, placementAt);
  const archive = archiveCollection(content);
  const changed = archiveCollection(withMoved(content));
  const { server, folder, close } = await openBenchFolder(content);
  // What is added would make everything else larger from round to round.
  await server.collections.take('grown', await smallCollection());
  const listener = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  const caller = new Caller((listener.address() as AddressInfo).port);
  const of = '/api/collections/bench';
  const zip = { 'Content-Type': 'application/zip' };
  let round = 0;
  const requests: readonly (readonly [string, () => Asked])[] = [
    ['archive', () => ({ method: 'GET', path: `${of}/archive` })],
    [
      'restore as a new collection',
      () => ({ method: 'POST', path: '/api/collections/restore', headers: zip, body: archive }),
    ],
    [
      'restore into it: preview, nothing changed',
      () => ({ method: 'POST', path: `${of}/restore/preview`, headers: zip, body: archive }),
    ],
    [
      `restore into it: preview, ${CHANGES} changed`,
      () => ({ method: 'POST', path: `${of}/restore/preview`, headers: zip, body: changed }),
    ],
    [`one edit of ${CHANGES} placements`, () => sent(`${of}/edits`, moveMany(CHANGES, 2 * round))],
    [`one edit of ${MAX_CHANGES} placements`, () => sent(`${of}/edits`, moveMany(MAX_CHANGES, 2 * round + 1))],
    [
      `an edit that adds ${MAX_ADDED} placements`,
      () => sentAsLines('/api/collections/grown/edits', addMany('placement', round)),
    ],
    [
      `an edit that adds ${MAX_ADDED} blocks`,
      () => sentAsLines('/api/collections/grown/edits', addMany('block', round)),
    ],
    ['an edit like that, fetched', () => ({ method: 'GET', path: `/api/collections/grown/edits/block-${round}` })],
    ['the log since an edit like that', () => ({ method: 'GET', path: `${of}/edits?after=${2 * round + 1}` })],
    ['the history of the level', () => ({ method: 'GET', path: `${of}/levels/one/history` })],
    ['states of all bakes', () => ({ method: 'GET', path: `${of}/bakes` })],
    ['bake of the level', () => ({ method: 'POST', path: `${of}/bakes/figures/one` })],
    ['check for the pack', () => ({ method: 'GET', path: `${of}/pack/check` })],
    ['copy', () => sent(`${of}/copy`, { name: `Copy ${round}`, withLevels: true })],
  ];
  const held = new Map<string, number[]>(requests.map(([name]) => [name, []]));
  for (; round < ROUNDS; round++) {
    for (const [name, ask] of requests) {
      const asked = ask();
      held.get(name)?.push(await heldBy(() => caller.ask(asked)));
    }
  }
  await caller.close();
  listener.close();
  listener.closeAllConnections();
  await close();
  rmSync(folder, { recursive: true, force: true });
  return [...held].map(([name, times]) => ({
    ...atMost(`${name}, ms held`, median(times), GOAL_MS, 0),
    value: `${median(times).toFixed(0)} (${times.map((ms) => ms.toFixed(0)).join(', ')})`,
  }));
}

/** The longest time for which the loop did not turn while something ran, milliseconds. */
async function heldBy(work: () => Promise<unknown>): Promise<number> {
  globalThis.gc?.();
  let longest = 0;
  let last = performance.now();
  const timer = setInterval(() => {
    const now = performance.now();
    longest = Math.max(longest, now - last - LOOK_MS);
    last = now;
  }, LOOK_MS);
  await work();
  clearInterval(timer);
  return Math.max(longest, performance.now() - last - LOOK_MS);
}

/** One request, made ready before the clock runs. */
interface Asked {
  readonly method: string;
  readonly path: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: Uint8Array | string;
}

function sent(path: string, body: unknown): Asked {
  return { method: 'POST', path, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
}

function sentAsLines(path: string, edit: Edit): Asked {
  return {
    method: 'POST',
    path,
    headers: { 'Content-Type': EDIT_LINES_TYPE },
    body: [...linesOfEdit(edit)].join(''),
  };
}

/** Asks from a thread of its own, so that reading the answers holds no loop but its own. */
class Caller {
  private readonly worker = new Worker(
    `const { parentPort } = require('node:worker_threads');
     parentPort.on('message', async ({ url, method, headers, body }) => {
       const response = await fetch(url, { method, headers, body });
       const bytes = await response.arrayBuffer();
       parentPort.postMessage({ status: response.status, text: response.ok ? '' : Buffer.from(bytes).toString().slice(0, 300) });
     });`,
    { eval: true },
  );

  constructor(private readonly port: number) {}

  ask({ method, path, headers, body }: Asked): Promise<void> {
    return new Promise((resolve, reject) => {
      this.worker.once('message', ({ status, text }: { readonly status: number; readonly text: string }) =>
        status < 300 ? resolve() : reject(new Error(`${method} ${path} answered ${status}: ${text}`)),
      );
      this.worker.postMessage({ url: `http://127.0.0.1:${this.port}${path}`, method, headers, body });
    });
  }

  async close(): Promise<void> {
    await this.worker.terminate();
  }
}

function placementAt(i: number): Placement {
  return {
    id: `p${String(i).padStart(6, '0')}`,
    piece: 'pin',
    position: [i % 500, 0, Math.floor(i / 500)],
    turn: [0, i % 360, 0],
    scale: [1, 1, 1],
  };
}

/** The same with the first placements a metre higher. */
function withMoved(content: CollectionContent): CollectionContent {
  const own = content.strata.get(STRATUM) as NonNullable<ReturnType<typeof content.strata.get>>;
  const placement = own.placement.map((one, i): Placement =>
    i < CHANGES ? { ...one, position: [one.position[0], 1, one.position[2]] } : one,
  );
  return { ...content, strata: new Map([...content.strata, [STRATUM, { ...own, placement }]]) };
}

/** How high the edits before left a placement: the first few are lifted by every edit, the others by every second. */
function heightAt(i: number, edits: number): number {
  return i < CHANGES ? edits : Math.floor(edits / 2);
}

/** Lifts many placements by a metre. They are other ones than `withMoved` lifts. */
function moveMany(count: number, round: number): Edit {
  const operations = Array.from({ length: count }, (_unused, i): Operation => {
    const { id, position } = placementAt(PLACEMENTS - 1 - i);
    return {
      document: STRATUM,
      kind: 'placement',
      id,
      field: 'position',
      before: [position[0], heightAt(i, round), position[2]] as Json,
      after: [position[0], heightAt(i, round) + 1, position[2]] as Json,
    };
  });
  return { id: `lift-${round}`, person: 'bench', label: `lift ${count} placements`, undoes: null, operations };
}

function addMany(kind: 'placement' | 'block', round: number): Edit {
  const made = (i: number): Placement | Block => {
    const { id, ...rest } = placementAt(i);
    const own = `${kind}-${round}-${id}`;
    if (kind === 'placement') return { id: own, ...rest };
    return {
      id: own,
      name: '',
      position: rest.position,
      turn: [0, 0, 0],
      planes: boxPlanes([1, 2, 1]),
      sight: 'hides',
      material: 'stone',
    };
  };
  const operations = Array.from({ length: MAX_ADDED }, (_unused, i): Operation => {
    const one = made(i);
    return { document: STRATUM, kind, id: one.id, field: null, before: null, after: one as unknown as Json };
  });
  return { id: `${kind}-${round}`, person: 'bench', label: `add ${MAX_ADDED} of them`, undoes: null, operations };
}
