import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { emptyRecordTables, linkLookup, type Field, type Level } from '@stravel/core';
import { levelColumns } from '../table-rows';
import { ChangeDialog, type AgreedChange, type ChangeDialogData } from './change-dialog';

const field = (key: string, parts: Partial<Field>): Field => ({
  id: key,
  key,
  name: key,
  type: 'text',
  choices: [],
  order: key,
  ...parts,
});
const fields = [
  field('mood', { type: 'choice', choices: ['dark', 'ember'] }),
  field('shards', { type: 'number', high: 10 }),
  field('count', { type: 'number', figure: 'strata' }),
  field('shot', { type: 'picture' }),
];
const level = (id: string, shards: number): Level => ({
  id,
  name: id,
  key: id,
  set: 's',
  order: id,
  purpose: 'play',
  code: id,
  values: { shards, mood: 'dark' },
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});
const tables = { ...emptyRecordTables(), level: { a: level('a', 4), b: level('b', 9) } };

describe('changing many at once', () => {
  function dialog() {
    const agreed: AgreedChange[] = [];
    const data: ChangeDialogData = {
      kind: 'level',
      records: Object.values(tables.level),
      columns: levelColumns(fields, ['play']),
      tables,
      links: linkLookup(tables),
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: MAT_DIALOG_DATA, useValue: data },
        { provide: MatDialogRef, useValue: { close: (change: AgreedChange) => agreed.push(change) } },
      ],
    });
    return { one: TestBed.createComponent(ChangeDialog).componentInstance, agreed };
  }

  it('is offered for what can be written, the fields of one’s own first', () => {
    const { one } = dialog();
    expect(one.columns.map(({ id }) => id)).toEqual(['name', 'purpose', 'code', 'key', 'mood', 'shards']);
    expect([one.column(), one.choices()]).toEqual(['mood', ['dark', 'ember']]);
  });

  it('does nothing before something is typed, then shows what becomes of each', () => {
    const { one, agreed } = dialog();
    expect(one.plan().counts).toEqual({ changed: 0, unchanged: 0, refused: 0 });
    one.column.set('shards');
    one.command.set('add to');
    one.text.set('3');
    expect(one.plan().counts).toEqual({ changed: 1, unchanged: 0, refused: 1 });
    one.agree();
    expect([agreed[0].label, agreed[0].plan.operations.map(({ id, after }) => [id, after])]).toEqual([
      'add to shards: 1 value',
      [['a', 7]],
    ]);
    one.command.set('clear');
    expect(one.plan().counts.changed).toBe(2);
    expect(one.choices()).toBeUndefined();
  });
});
