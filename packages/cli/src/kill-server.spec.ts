import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomStream, type LoggedEdit } from '@stravel/core';
import { openDatabase } from '@stravel/server';

const MAIN = join(__dirname, '../dist/main.js');
const KILLS = 200;

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
    let value = 0;
    let stands: number | undefined;
    for (let kill = 0; kill < KILLS; kill++) {
      const { child, address } = await start(dataFolder);
      const ended = new Promise((resolve) => child.once('exit', resolve));
      let isDead = false;
      setTimeout(() => {
        isDead = true;
        child.kill('SIGKILL');
      }, random.below(120));
      while (!isDead) {
        const id = `kill-${kill}-${value + 1}`;
        const before = stands === undefined ? await shards(address) : stands;
        if (before === undefined) break;
        const body = {
          id,
          person: 'killer',
          label: 'count',
          undoes: null,
          operations: [{ document: 'records', kind: 'level', id: 'relight', field: 'values.shards', before, after: ++value }],
        };
        // After a kill nobody knows whether the edit was written: the same id is sent again to find out.
        const sequence = await send(address, body);
        if (sequence === undefined) {
          stands = undefined;
          break;
        }
        acknowledged.set(id, sequence);
        stands = value;
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
    expect(acknowledged.size).toBeGreaterThan(KILLS);
    rmSync(dataFolder, { recursive: true, force: true });
  }, 1200000);
});

async function send(address: string, body: { id: string }): Promise<number | undefined> {
  try {
    const response = await fetch(`${address}/api/collections/cinderbrine/edits`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
    if (!response.ok) throw new Error(`answered ${response.status}: ${await response.text()}`);
    return ((await response.json()) as { sequence: number }).sequence;
  } catch (error) {
    // fetch throws the TypeError of another realm.
    if ((error as Error).name === 'TypeError') return undefined;
    throw error;
  }
}

/** The value that stands, read from the last edit of the log; the demo's own when there is none. */
async function shards(address: string): Promise<number | undefined> {
  try {
    const log = await allEdits(address);
    const last = log.at(-1)?.operations[0].after;
    if (typeof last === 'number') return last;
    const response = await fetch(`${address}/api/collections/cinderbrine/archive`);
    const { unzipSync } = await import('fflate');
    const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
    return (JSON.parse(Buffer.from(files['levels/relight.json']).toString('utf8')) as { level: { values: { shards: number } } }).level.values.shards;
  } catch (error) {
    // fetch throws the TypeError of another realm.
    if ((error as Error).name === 'TypeError') return undefined;
    throw error;
  }
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
