import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { linkLookup, type Field, type FieldValue, type Level, type LevelSet } from '@stravel/core';
import type { ActiveCell } from '../store/sets-store';
import { levelColumns, plainRows, type TableRow } from '../table-rows';
import { CellEditor } from './cell-editor';
import { ColumnLayout } from './column-layout';
import { PictureEditor } from './picture-editor';
import { RecordTable, type RowRequest } from './record-table';

const set: LevelSet = { id: 'works', name: 'Works', parent: null, order: 'a0', binned: null };
const level = (id: string, values: Level['values'] = {}): Level => ({
  id,
  name: id,
  key: id,
  set: 'works',
  order: 'a0',
  purpose: 'play',
  code: id.toUpperCase(),
  values,
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});
const fields: Field[] = [{ id: 'f', key: 'shards', name: 'Shards', type: 'number', choices: [], order: 'a0' }];
const links = linkLookup({ level: {}, set: {}, entry: {} });
const columns = levelColumns(fields, ['play', 'test', 'tool']);
const rows: TableRow[] = [
  { kind: 'set', id: 'works', set, depth: 0, rank: 'Part', count: 3, ready: 1, folded: false },
  ...['one', 'two', 'three'].map((id, i): TableRow => ({
    kind: 'record',
    id,
    record: level(id, { shards: i }),
    depth: 1,
    number: String(i + 1),
  })),
];

beforeAll(() => {
  // jsdom lays nothing out and cannot scroll.
  Element.prototype.scrollTo = () => undefined;
});

async function table(active: ActiveCell | null, editing = false) {
  const fixture = TestBed.createComponent(RecordTable);
  const inputs = { rows, columns, active, editing, chosen: new Set<string>(['two']), openLevel: 'three', links };
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const said: unknown[] = [];
  const one = fixture.componentInstance;
  one.entered.subscribe((cell) => said.push(['enter', cell.row, cell.column]));
  one.editStarted.subscribe((cell) => said.push(['edit', cell.row, cell.column]));
  one.requested.subscribe(({ row, request }: { row: TableRow; request: RowRequest }) => said.push([request, row.id]));
  one.toggled.subscribe((id) => said.push(['toggle', id]));
  one.folded.subscribe((id) => said.push(['fold', id]));
  one.valueChanged.subscribe(({ record: of, column, value }) => said.push(['change', of.id, column.id, value]));
  const row = (id: string) => rows.find((candidate) => candidate.id === id) as TableRow;
  const press = (id: string, column: string, key: string, keys: Partial<KeyboardEventInit> = {}) => {
    const event = new KeyboardEvent('keydown', { key, cancelable: true, ...keys });
    one.key(event, row(id), column);
    return event.defaultPrevented;
  };
  return { one, said, press, fixture };
}

describe('the table of levels', () => {
  it('moves by arrows as in a spreadsheet, and stops at its edges', async () => {
    const all: unknown[] = [];
    for (const [row, column, key] of [
      ['one', 'name', 'ArrowDown'],
      ['one', 'name', 'ArrowRight'],
      ['one', 'name', 'ArrowLeft'],
      ['three', 'f', 'ArrowDown'],
      ['three', 'f', 'ArrowRight'],
      ['one', 'code', 'ArrowUp'],
    ] as const) {
      const { press, said } = await table({ row, column });
      press(row, column, key);
      all.push(...said);
    }
    expect(all).toEqual([
      ['enter', 'two', 'name'],
      ['enter', 'one', 'purpose'],
      ['enter', 'one', 'name'],
      ['enter', 'three', 'f'],
      ['enter', 'three', 'f'],
      ['enter', 'works', 'name'],
    ]);
  });

  it('takes the focus back to its cell when lines change', async () => {
    const { fixture } = await table({ row: 'one', column: 'name' });
    const element = fixture.nativeElement as HTMLElement;
    document.body.append(element);
    const again = async (): Promise<string | undefined> => {
      fixture.componentRef.setInput('rows', [...rows]);
      await fixture.whenStable();
      const focused = document.activeElement as HTMLElement;
      return focused.dataset['cell'];
    };
    element.querySelector<HTMLElement>('[data-cell="two:code"]')?.focus();
    expect(await again()).toBe('one:name');
    element.remove();
  });

  it('goes as many cells as keys were pressed, though none was drawn between', async () => {
    const { press, said } = await table({ row: 'one', column: 'name' });
    for (let i = 0; i < 3; i++) press('one', 'name', 'ArrowRight');
    press('one', 'name', 'ArrowDown');
    expect(said).toEqual([
      ['enter', 'one', 'purpose'],
      ['enter', 'one', 'code'],
      ['enter', 'one', 'ready'],
      ['enter', 'two', 'ready'],
    ]);
  });

  it('reaches over cells with Shift and fills them down, however fast', async () => {
    const { one, press } = await table({ row: 'one', column: 'f' });
    const written: unknown[] = [];
    one.cellsWritten.subscribe(({ title, cells }) =>
      written.push([title, cells.texts.map(({ record, column, text }) => `${record.id} ${column.field.key} ${text}`)]),
    );
    press('one', 'f', 'ArrowDown', { shiftKey: true });
    press('one', 'f', 'ArrowDown', { shiftKey: true });
    press('one', 'f', 'Enter', { ctrlKey: true });
    expect(written).toEqual([['Fill down', ['two shards 0', 'three shards 0']]]);
  });

  it.each([
    ['Enter', {}, ['edit', 'one', 'code']],
    ['F2', {}, ['edit', 'one', 'code']],
    [' ', {}, ['toggle', ['one']]],
    ['Delete', {}, ['bin', 'one']],
    ['ArrowUp', { altKey: true }, ['up', 'one']],
    ['ArrowDown', { altKey: true }, ['down', 'one']],
    ['d', { ctrlKey: true }, ['duplicate', 'one']],
  ])('answers %s %j', async (key, keys, request) => {
    const { press, said } = await table({ row: 'one', column: 'code' });
    expect(press('one', 'code', key, keys)).toBe(true);
    expect(said).toEqual([request]);
  });

  it('folds a set by the space bar, and leaves other keys to the page', async () => {
    const { press, said } = await table(null);
    press('works', 'name', ' ');
    expect(said).toEqual([['fold', 'works']]);
    expect(press('works', 'name', 'x')).toBe(false);
    expect(press('works', 'name', '/')).toBe(false);
  });

  it('leaves all keys to the editor while one edits', async () => {
    const { press, said } = await table({ row: 'one', column: 'name' }, true);
    expect(press('one', 'name', 'Delete')).toBe(false);
    expect(press('one', 'name', 'ArrowDown')).toBe(false);
    expect(said).toEqual([]);
  });

  it('has one cell that Tab reaches', async () => {
    const { one } = await table({ row: 'two', column: 'code' });
    const stops = rows.flatMap((row, i) =>
      columns.filter(({ id }) => one.isTabStop(row, id, i)).map(({ id }) => `${row.id} ${id}`),
    );
    expect(stops).toEqual(['two code']);
    const fresh = (await table(null)).one;
    expect(
      rows.flatMap((row, i) =>
        columns.filter(({ id }) => fresh.isTabStop(row, id, i)).map(({ id }) => `${row.id} ${id}`),
      ),
    ).toEqual(['works name']);
  });

  it('changes only what is another value than before', async () => {
    const { one, said } = await table({ row: 'one', column: 'f' }, true);
    const [, first] = rows;
    if (first.kind !== 'record') throw new Error('the second row is a level');
    one.edit(first.record, columns[5], 0);
    one.edit(first.record, columns[5], 5);
    one.editSet(set, '  ');
    one.editSet(set, 'Works');
    expect(said).toEqual([['change', 'one', 'f', 5]]);
  });
});

describe('the columns of a table', () => {
  it('say why a level is not ready, and open nothing to write', async () => {
    const faults: Record<string, string[]> = { one: ['no exit', 'bakes stale'] };
    const fixture = TestBed.createComponent(RecordTable);
    const asked = levelColumns(fields, ['play'], (id) => faults[id] ?? []);
    const inputs = { rows, columns: asked, active: null, editing: false, chosen: new Set<string>(), links };
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    const said: string[] = [];
    fixture.componentInstance.editStarted.subscribe(() => said.push('edit'));
    fixture.componentInstance.explained.subscribe(({ record, column }) => said.push(`${record.id} ${column.id}`));
    const [, one, two] = rows;
    if (one.kind !== 'record' || two.kind !== 'record') throw new Error('the rows are levels');
    expect([one, two].map(({ record }) => fixture.componentInstance.cell(record, asked[3]).text)).toEqual([
      'not ready',
      'ready',
    ]);
    expect(asked[3].why?.(one.record)).toBe('no exit · bakes stale');
    fixture.componentInstance.start(one, asked[3]);
    expect(said).toEqual(['one ready']);
  });

  it('stay in view up to the frozen one, each right of those before it', async () => {
    const { one } = await table(null);
    expect(one.layout.stays().every((left) => left === undefined)).toBe(true);
    const fixture = TestBed.createComponent(RecordTable);
    const inputs = {
      rows,
      columns: columns.map((column, i) => ({ ...column, width: `${100 + i}px` })),
      active: null,
      editing: false,
      chosen: new Set<string>(),
      links,
      frozen: 2,
    };
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    // Grip 22, choice 28, number 44 and 100 pixels, 8 between each.
    const { layout } = fixture.componentInstance;
    expect(layout.stays().slice(0, 6)).toEqual([0, 30, 66, 118, 226, undefined]);
    // All of it fits.
    expect(layout.drawn()).toHaveLength(columns.length);
  });

  it('exist only where they are seen, besides the frozen ones, and come into sight when one goes there', () => {
    const many = Array.from({ length: 30 }, (_unused, i) => ({ ...columns[0], id: `c${i}`, width: '92px' }));
    const frozen = signal(1);
    const layout = new ColumnLayout(signal(many), frozen);
    const body = { scrollLeft: 0, clientWidth: 518 } as HTMLElement;
    const seen = () => layout.drawn().map(({ index }) => index);
    layout.follow(body);
    // Columns begin at 118, one every 100 pixels.
    expect(seen()).toEqual([0, 1, 2, 3, 4]);
    body.scrollLeft = 1000;
    layout.follow(body);
    // The frozen one covers up to 218: from 1218 on they are seen, and those that end within 40 pixels of it.
    expect(seen()).toEqual([0, 10, 11, 12, 13, 14]);
    layout.reveal('c29', body);
    expect([body.scrollLeft, seen().at(-1)]).toEqual([118 + 30 * 100 - 518, 29]);
    layout.reveal('c1', body);
    expect([body.scrollLeft, seen()]).toEqual([0, [0, 1, 2, 3, 4]]);
    frozen.set(0);
    layout.reveal('c0', body);
    expect(body.scrollLeft).toBe(0);
  });

  it('gather lines under what they hold, what holds nothing last, and fold', () => {
    const records = [level('a', { shards: 2 }), level('b'), level('c', { shards: 2 }), level('d', { shards: 1 })];
    const groupOf = ({ values }: { readonly values: Level['values'] }): string => String(values['shards'] ?? '');
    const shown = (folded: readonly string[]) =>
      plainRows(records, ({ id }) => id, groupOf, new Set(folded)).map((row) =>
        row.kind === 'group' ? `${row.name} (${row.count})` : row.id,
      );
    expect(shown([])).toEqual(['2 (2)', 'a', 'c', '1 (1)', 'd', 'nothing (1)', 'b']);
    expect(shown(['group 2'])).toEqual(['2 (2)', '1 (1)', 'd', 'nothing (1)', 'b']);
    expect(plainRows(records, () => '', undefined, new Set()).map(({ kind }) => kind)).toEqual([
      'record',
      'record',
      'record',
      'record',
    ]);
  });
});

describe('a picture cell', () => {
  it('sends the file and keeps its name; what is refused says why and keeps what was', async () => {
    const fixture = TestBed.createComponent(PictureEditor);
    const field: Field = { id: 'p', key: 'p', name: 'Picture', type: 'picture', choices: [], order: 'a', list: true };
    const sent: unknown[] = [];
    let answer: Promise<string> = Promise.resolve('f00');
    const upload = (file: Blob) => (sent.push(file), answer);
    for (const [name, value] of Object.entries({ field, label: 'Picture of one', value: ['abc'], upload }))
      fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    const said: unknown[] = [];
    fixture.componentInstance.kept.subscribe((value) => said.push(value));
    const box = (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
    Object.defineProperty(box, 'files', { value: [new File([Uint8Array.of(0xff, 0xd8, 0xff, 0xe0)], 'x.jpg')] });
    await fixture.componentInstance.choose();
    answer = Promise.reject(new Error('The file is no picture.'));
    await fixture.componentInstance.choose();
    expect([sent.length, said, fixture.componentInstance.text()]).toEqual([
      2,
      [['abc', 'f00']],
      'The file is no picture.',
    ]);
  });
});

describe('the editor of a cell', () => {
  async function editor(
    type: Field['type'],
    value: FieldValue,
    rules: Partial<Field> = {},
    suggest: () => string[] = () => [],
  ) {
    const field: Field = { id: 'f', key: 'f', name: 'Shards', type, choices: [], order: 'a0', ...rules };
    const fixture = TestBed.createComponent(CellEditor);
    for (const [name, input] of Object.entries({ field, label: 'Shards of one', value, links, suggest }))
      fixture.componentRef.setInput(name, input);
    await fixture.whenStable();
    const said: unknown[] = [];
    fixture.componentInstance.kept.subscribe((kept) => said.push(kept));
    fixture.componentInstance.left.subscribe(() => said.push('left'));
    const element = fixture.nativeElement as HTMLElement;
    const box = element.querySelector('input, select, textarea') as HTMLInputElement;
    const press = async (key: string) => {
      box.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await fixture.whenStable();
    };
    return { element, box, press, said };
  }

  it('keeps a number at Enter, and keeps on editing what is none', async () => {
    const { element, box, press, said } = await editor('number', 8);
    expect(box.value).toBe('8');
    box.value = 'seven';
    await press('Enter');
    expect(said).toEqual([]);
    expect(element.querySelector('[role=alert]')?.textContent).toContain('“seven” is not a number.');
    expect(box.value).toBe('seven');
    box.value = '7';
    await press('Enter');
    expect(said).toEqual([7]);
  });

  it('leaves at Escape without keeping', async () => {
    const { box, press, said } = await editor('text', 'soot');
    box.value = 'ash';
    await press('Escape');
    expect(said).toEqual(['left']);
  });

  it('offers the choices of a field, and none', async () => {
    const { box } = await editor('choice', 'ember', { choices: ['dark', 'ember'] });
    const options = [...box.querySelectorAll('option')].map(({ textContent }) => textContent?.trim());
    expect(options).toEqual(expect.arrayContaining(['dark', 'ember']));
    expect(box.value).toBe('ember');
  });

  it('reads the end of a list of links as it is typed', async () => {
    const { element, box } = await editor('entry', null, { list: true, target: 'tides' }, () => ['Ebb']);
    box.value = 'Slack; e';
    box.dispatchEvent(new Event('input'));
    await new Promise((resolve) => setTimeout(resolve));
    expect(
      [...element.querySelectorAll('datalist option')].map((option) => (option as HTMLOptionElement).value),
    ).toEqual(['Slack; Ebb']);
  });

  it('asks for what is required, lets a line break into long text, and leaves alone what already did not fit', async () => {
    const required = await editor('text', 'soot', { required: true });
    required.box.value = ' ';
    await required.press('Enter');
    expect(required.said).toEqual([]);
    expect(required.element.querySelector('[role=alert]')?.textContent).toContain('must be filled');
    const long = await editor('long text', 'a\nb');
    expect(long.box.value).toBe('a\nb');
    const misfit = await editor('number', 'many');
    await misfit.press('Enter');
    expect(misfit.said).toEqual(['left']);
  });
});
