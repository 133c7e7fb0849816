import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Edit, Placement } from '@stravel/core';
import sqlite3 from 'sqlite3';
import { serveCollection } from '../web/served-collection';
import { atMost, inTurns, timingText, type Row } from '../measure';
import { STRATUM, manyPlacements } from './many-placements';
import { openBenchFolder } from './bench-folder';

const EDITS_A_ROUND = 400;
const ROUNDS = 5;
/** Edits on their way at the same time, as from some persons at work; the goal is held against this many. */
const IN_FLIGHT = 16;
/** As from one page, which sends its edits one by one. */
const ONE_BY_ONE = 1;
/** The WAL is emptied after so many edits, before SQLite would do so by itself. */
const EDITS_A_WAL = 64;
/** Two snapshots' worth, so that what a snapshot writes is in the figure. */
const WAL_EDITS = 512;

/** Acknowledged edits against raw SQLite with the same rows in the same durability, and what one moved placement writes. */
export async function editsBench(): Promise<Row[]> {
  const server = await serveCollection(await manyPlacements(20000, (i) => placementAt(i, 0)));
  const port = Number(new URL(server.address).port);
  const raw = await RawLog.open();
  const agent = new Agent({ keepAlive: true, maxSockets: IN_FLIGHT });
  let moved = 0;
  const round = async (inFlight: number): Promise<void> => {
    const end = moved + EDITS_A_ROUND;
    const next = async (): Promise<void> => {
      for (let edit = moved; edit < end; edit = moved) {
        moved++;
        await post(agent, port, moveOf(edit));
      }
    };
    await Promise.all(Array.from({ length: inFlight }, next));
  };
  const writeRaw = async (): Promise<void> => {
    for (let i = 0; i < EDITS_A_ROUND; i++) await raw.append(moveOf(i));
  };
  const [ours, theirs] = await inTurns(ROUNDS, () => round(IN_FLIGHT), writeRaw);
  const [alone] = await inTurns(2, () => round(ONE_BY_ONE), writeRaw);
  agent.destroy();
  await raw.close();
  await server.stop();
  const rate = (ms: number): number => Math.round((EDITS_A_ROUND / ms) * 1000);
  const small = await walBytesAnEdit(1000);
  const large = await walBytesAnEdit(100000);
  return [
    {
      name: `${EDITS_A_ROUND} edits over HTTP, acknowledged, ${IN_FLIGHT} in flight`,
      value: `${timingText(ours)}, ${rate(ours.medianMs)} a second`,
    },
    { name: 'the same, one by one', value: `${timingText(alone)}, ${rate(alone.medianMs)} a second` },
    {
      name: 'raw sqlite3, same rows, WAL, synchronous FULL',
      value: `${timingText(theirs)}, ${rate(theirs.medianMs)} a second`,
    },
    atMost('raw / acknowledged edits a second', ours.medianMs / theirs.medianMs, 3),
    { name: 'WAL bytes a moved placement, level of 1,000', value: Math.round(small) },
    { name: 'WAL bytes a moved placement, level of 100,000', value: Math.round(large) },
    atMost('level of 100,000 / level of 1,000', large / small, 2),
  ];
}

function placementAt(i: number, x: number): Placement {
  return {
    id: `p${String(i).padStart(6, '0')}`,
    piece: 'pin',
    position: [x, 0, i % 100],
    turn: [0, 0, 0],
    scale: [1, 1, 1],
  };
}

/** Moves the placements of the first 200 one after the other, each a metre further every time. */
function moveOf(edit: number, spread = 200): Edit {
  const i = (edit * 7919) % spread;
  const times = Math.floor(edit / spread);
  const { id, position } = placementAt(i, times);
  const after = [times + 1, position[1], position[2]];
  return {
    id: `move-${edit}`,
    person: 'bench',
    label: 'move a placement',
    undoes: null,
    operations: [{ document: STRATUM, kind: 'placement', id, field: 'position', before: position, after }],
  };
}

function post(agent: Agent, port: number, edit: Edit): Promise<void> {
  const body = JSON.stringify(edit);
  return new Promise((resolve, reject) => {
    const sent = request(
      {
        agent,
        port,
        host: '127.0.0.1',
        method: 'POST',
        path: '/api/collections/bench/edits',
        headers: { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) },
      },
      (response) => {
        response.resume();
        response.once('end', () =>
          response.statusCode === 201
            ? resolve()
            : reject(new Error(`edit ${edit.id} answered ${response.statusCode ?? 0}`)),
        );
      },
    );
    sent.once('error', reject);
    sent.end(body);
  });
}

async function walBytesAnEdit(placements: number): Promise<number> {
  const { database, server, folder, close } = await openBenchFolder(
    await manyPlacements(placements, (i) => placementAt(i, 0)),
  );
  const wal = join(folder, 'stravel.sqlite-wal');
  const empty = (): Promise<unknown> =>
    database.queue.exclusive(() => database.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)'));
  let bytes = 0;
  await empty();
  for (let edit = 0; edit < WAL_EDITS; edit++) {
    await server.edits.append('bench', moveOf(edit, Math.min(placements, WAL_EDITS)));
    if ((edit + 1) % EDITS_A_WAL !== 0) continue;
    await database.queue.settled();
    bytes += statSync(wal).size;
    await empty();
  }
  await close();
  rmSync(folder, { recursive: true, force: true });
  return bytes / WAL_EDITS;
}

/** The same two rows an edit, written with sqlite3 and nothing else. */
class RawLog {
  private sequence = 0;

  private constructor(
    private readonly database: sqlite3.Database,
    private readonly folder: string,
  ) {}

  static async open(): Promise<RawLog> {
    const folder = mkdtempSync(join(tmpdir(), 'stravel-raw-'));
    const log = new RawLog(new sqlite3.Database(join(folder, 'raw.sqlite')), folder);
    await log.run('PRAGMA journal_mode=WAL');
    await log.run('PRAGMA synchronous=FULL');
    await log.run(
      'CREATE TABLE edits (collection TEXT, sequence INTEGER, id TEXT, person TEXT, label TEXT, undoes TEXT, at TEXT, operations TEXT, PRIMARY KEY (collection, sequence))',
    );
    await log.run('CREATE UNIQUE INDEX edits_by_id ON edits (collection, id)');
    await log.run(
      'CREATE TABLE edit_documents (collection TEXT, document TEXT, sequence INTEGER, PRIMARY KEY (collection, document, sequence))',
    );
    return log;
  }

  async append(edit: Edit): Promise<void> {
    const sequence = ++this.sequence;
    await this.run('BEGIN IMMEDIATE');
    await this.run('INSERT INTO edits VALUES (?, ?, ?, ?, ?, ?, ?, ?)', [
      'bench',
      sequence,
      `${edit.id}-${sequence}`,
      edit.person,
      edit.label,
      null,
      new Date().toISOString(),
      JSON.stringify(edit.operations),
    ]);
    await this.run('INSERT INTO edit_documents VALUES (?, ?, ?)', ['bench', STRATUM, sequence]);
    await this.run('COMMIT');
  }

  async close(): Promise<void> {
    await new Promise((resolve) => this.database.close(resolve));
    rmSync(this.folder, { recursive: true, force: true });
  }

  private run(sql: string, values: readonly (string | number | null)[] = []): Promise<void> {
    return new Promise((resolve, reject) =>
      this.database.run(sql, values, (error) => (error ? reject(error) : resolve())),
    );
  }
}
