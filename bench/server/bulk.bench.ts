import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Edit, Level } from '@stravel/core';
import sqlite3 from 'sqlite3';
import { manyLevels } from '../many-levels';
import { atMost, inTurns, timingText, type Row } from '../measure';
import { serveCollection } from '../web/served-collection';

const LEVELS = 10000;
const ROUNDS = 7;

/** One value of 10,000 levels changed by one edit, saved, against raw sqlite3 writing the same records and the same log entry in one transaction. */
export async function bulkBench(): Promise<Row[]> {
  const content = await manyLevels(LEVELS, 30);
  const levels = Object.values(content.records.level);
  const server = await serveCollection(content);
  const raw = await RawRecords.open(levels);
  try {
    let sent = 0;
    let written = 0;
    const [ours, theirs] = await inTurns(
      ROUNDS,
      () => post(`${server.address}/api/collections/bench/edits`, changeOf(levels, sent++)),
      () => raw.write(levels, changeOf(levels, written++)),
    );
    return [
      { name: `one edit of ${LEVELS} values over HTTP, saved`, value: timingText(ours) },
      { name: 'raw sqlite3: the same records and log entry, one transaction', value: timingText(theirs) },
      atMost('saved edit / raw', ours.medianMs / theirs.medianMs, 3),
    ];
  } finally {
    await raw.close();
    await server.stop();
  }
}

function changeOf(levels: readonly Level[], round: number): Edit {
  const value = (of: number): string => `round ${of}`;
  return {
    id: `bulk-${round}`,
    person: 'bench',
    label: `set text: ${levels.length} values`,
    undoes: null,
    operations: levels.map(({ id, values }) => ({
      document: 'records',
      kind: 'level',
      id,
      field: 'values.f0',
      before: round === 0 ? (values['f0'] as string) : value(round - 1),
      after: value(round),
    })),
  };
}

async function post(url: string, edit: Edit): Promise<void> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(edit),
  });
  if (response.status !== 201)
    throw new Error(`the edit answered ${response.status}: ${(await response.text()).slice(0, 300)}`);
}

/** Levels as rows of JSON with the log beside them, written with sqlite3 and nothing else. */
class RawRecords {
  private constructor(
    private readonly database: sqlite3.Database,
    private readonly folder: string,
  ) {}

  static async open(levels: readonly Level[]): Promise<RawRecords> {
    const folder = mkdtempSync(join(tmpdir(), 'stravel-raw-'));
    const raw = new RawRecords(new sqlite3.Database(join(folder, 'raw.sqlite')), folder);
    await raw.run('PRAGMA journal_mode=WAL');
    await raw.run('PRAGMA synchronous=FULL');
    await raw.run('CREATE TABLE levels (id TEXT PRIMARY KEY, record TEXT)');
    await raw.run('CREATE TABLE edits (id TEXT PRIMARY KEY, person TEXT, label TEXT, at TEXT, operations TEXT)');
    await raw.write(levels, { id: 'first', person: '', label: '', undoes: null, operations: [] });
    return raw;
  }

  async write(levels: readonly Level[], edit: Edit): Promise<void> {
    await this.run('BEGIN IMMEDIATE');
    const statement = this.database.prepare('INSERT OR REPLACE INTO levels VALUES (?, ?)');
    levels.forEach((level, i) =>
      statement.run(
        level.id,
        JSON.stringify({ ...level, values: { ...level.values, f0: edit.operations.at(i)?.after ?? null } }),
      ),
    );
    await new Promise<void>((resolve, reject) => statement.finalize((error) => (error ? reject(error) : resolve())));
    await this.run('INSERT INTO edits VALUES (?, ?, ?, ?, ?)', [
      edit.id,
      edit.person,
      edit.label,
      new Date().toISOString(),
      JSON.stringify(edit.operations),
    ]);
    await this.run('COMMIT');
  }

  async close(): Promise<void> {
    await new Promise((resolve) => this.database.close(resolve));
    rmSync(this.folder, { recursive: true, force: true });
  }

  private run(sql: string, values: readonly (string | null)[] = []): Promise<void> {
    return new Promise((resolve, reject) =>
      this.database.run(sql, values, (error) => (error ? reject(error) : resolve())),
    );
  }
}
