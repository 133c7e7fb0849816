import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomStream, restoreCollection, type LoggedEdit } from '@stravel/core';
import { openDatabase } from '@stravel/server';

const MAIN = join(__dirname, '../dist/main.js');
/** As many as every run can afford; STRAVEL_KILLS=200 makes the long run. */
const KILLS = Number(process.env['STRAVEL_KILLS'] ?? 30);

/** Counts one level's value up by one. */
interface CountEdit {
  readonly id: string;
  readonly person: string;
  readonly label: string;
  readonly undoes: null;
  readonly operations: readonly [
    {
      readonly document: string;
      readonly kind: string;
      readonly id: string;
      readonly field: string;
      readonly before: number;
      readonly after: number;
    },
  ];
}

interface Running {
  readonly child: ChildProcess;
  readonly address: string;
}

function start(dataFolder: string): Promise<Running> {
  const child = spawn(process.execPath, [MAIN, 'demo'], {
    env: { ...process.env, PORT: '0', STRAVEL_DATA: dataFolder, STRAVEL_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child.stdout.on('data', (data: Buffer) => {
      const found = /Stravel is at (\S+)/.exec(data.toString());
      if (found) resolve({ child, address: found[1] });
    });
    child.once('exit', (code, signal) => reject(new Error(`the server ended with ${code ?? signal}`)));
  });
}

/** Needs the build; `./stravel test` builds before it comes here. */
describe('a server that is killed', () => {
  it(`loses no acknowledged edit, doubles none and keeps its database sound over ${KILLS} kills`, async () => {
    const dataFolder = mkdtempSync(join(tmpdir(), 'stravel-kill-'));
    const random = randomStream('kills');
    const acknowledged = new Map<string, number>();
    let stands: number | undefined;
    /** Sent, and cut off before its answer: nobody knows whether it was written. The next server is asked with the same id. */
    let open: CountEdit | undefined;
    for (let kill = 0; kill < KILLS; kill++) {
      const { child, address } = await start(dataFolder);
      const ended = new Promise((resolve) => child.once('exit', resolve));
      stands ??= await shards(address);
      let isDue = false;
      const killWithin = (mostMs: number): void => {
        if (isDue) return;
        isDue = true;
        setTimeout(() => child.kill('SIGKILL'), random.below(mostMs));
      };
      for (;;) {
        const body: CountEdit = open ?? countEdit(`kill-${kill}-${stands + 1}`, stands);
        // Every other server dies during its first edit, the others some edits later.
        if (kill % 2 === 0) killWithin(25);
        const sequence = await send(address, body);
        if (sequence === undefined) {
          open = body;
          break;
        }
        open = undefined;
        acknowledged.set(body.id, sequence);
        stands = body.operations[0].after;
        killWithin(60);
      }
      await ended;
    }
    const database = await openDatabase(dataFolder);
    const [check] = await database.sequelize.query('PRAGMA integrity_check');
    expect(check).toEqual([{ integrity_check: 'ok' }]);
    await database.close();
    const last = await start(dataFolder);
    const log = await allEdits(last.address);
    last.child.kill('SIGKILL');
    const places = new Map(log.map(({ id, sequence }) => [id, sequence]));
    expect(places.size).toBe(log.length);
    expect(log.map(({ sequence }) => sequence)).toEqual(log.map((_edit, i) => i + 1));
    expect([...acknowledged].filter(([id, sequence]) => places.get(id) !== sequence)).toEqual([]);
    expect(acknowledged.size).toBeGreaterThanOrEqual(KILLS / 4);
    rmSync(dataFolder, { recursive: true, force: true });
  }, 1200000);
});

async function send(address: string, body: CountEdit): Promise<number | undefined> {
  try {
    const response = await fetch(`${address}/api/collections/cinderbrine/edits`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`answered ${response.status}: ${await response.text()}`);
    return ((await response.json()) as { sequence: number }).sequence;
  } catch (error) {
    // fetch throws the TypeError of another realm.
    if ((error as Error).name === 'TypeError') return undefined;
    throw error;
  }
}

function countEdit(id: string, before: number): CountEdit {
  return {
    id,
    person: 'killer',
    label: 'count',
    undoes: null,
    operations: [
      { document: 'records', kind: 'level', id: 'relight', field: 'values.shards', before, after: before + 1 },
    ],
  };
}

/** The demo's own value, before the first edit. */
async function shards(address: string): Promise<number> {
  const response = await fetch(`${address}/api/collections/cinderbrine/archive`);
  const { records } = restoreCollection(new Uint8Array(await response.arrayBuffer()));
  return records.level['relight'].values['shards'] as number;
}

async function allEdits(address: string): Promise<LoggedEdit[]> {
  const all: LoggedEdit[] = [];
  for (;;) {
    const response = await fetch(`${address}/api/collections/cinderbrine/edits?after=${all.length}`);
    const { edits } = (await response.json()) as { edits: LoggedEdit[] };
    if (edits.length === 0) return all;
    all.push(...edits);
  }
}
