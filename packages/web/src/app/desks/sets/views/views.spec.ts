import { TestBed } from '@angular/core/testing';
import { PLAIN_VIEW, type Field, type TableView, type ViewRules } from '@stravel/core';
import { entryColumns } from '../table-rows';
import { inViewOrder } from './shown-view';
import { ViewPanel } from './view-panel';

const field: Field = { id: 'f', key: 'reach', name: 'Reach', type: 'number', choices: [], order: 'a' };
const columns = entryColumns([field]);
const view: TableView = { ...PLAIN_VIEW, id: 'v', name: 'Bright', order: 'a', register: null };

async function panel(rules: ViewRules, chosen = '') {
  const fixture = TestBed.createComponent(ViewPanel);
  for (const [name, value] of Object.entries({ columns, rules, views: [view], chosen }))
    fixture.componentRef.setInput(name, value);
  const said: unknown[] = [];
  const one = fixture.componentInstance;
  one.changed.subscribe((next) => said.push(next));
  one.kept.subscribe((name) => said.push(name));
  one.viewChosen.subscribe((id) => said.push(['view', id]));
  await fixture.whenStable();
  return { one, said, element: fixture.nativeElement as HTMLElement };
}

describe('the panel of a view', () => {
  it('adds, changes and removes conditions, orders and columns', async () => {
    const { one, said } = await panel({
      ...PLAIN_VIEW,
      conditions: [{ column: 'f', test: 'at least', text: '5' }],
      sorts: [{ column: 'name', descending: false }],
      hidden: [],
    });
    one.addCondition();
    one.setCondition(0, { text: '7' });
    one.dropCondition(0);
    one.addSort();
    one.setSort(0, { descending: true });
    one.dropSort(0);
    one.toggleColumn('f');
    const shown = (said as ViewRules[]).map(({ conditions, sorts, hidden }) => [
      conditions.map(({ column, text }) => `${column} ${text}`.trim()),
      sorts.map(({ column, descending }) => (descending ? `-${column}` : column)),
      hidden,
    ]);
    expect(shown).toEqual([
      [['f 5', 'name'], ['name'], []],
      [['f 7'], ['name'], []],
      [[], ['name'], []],
      [['f 5'], ['name', 'f'], []],
      [['f 5'], ['-name'], []],
      [['f 5'], [], []],
      [['f 5'], ['name'], ['f']],
    ]);
  });

  it('moves columns but never the name, gives widths within bounds, and takes them back', async () => {
    const { one, said } = await panel({ ...PLAIN_VIEW, widths: [{ column: 'f', pixels: 90 }] });
    one.moveColumn('f', -1);
    one.setWidth('f', '9999');
    one.setWidth('f', '3');
    one.setWidth('f', '');
    one.setWidth('f', 'wide');
    expect((said as ViewRules[]).map(({ widths }) => widths?.map(({ pixels }) => pixels))).toEqual([
      [900],
      [48],
      [],
      [],
    ]);
    const wide = await panel(PLAIN_VIEW);
    wide.one.moveColumn('name', 1);
    expect(wide.said).toEqual([]);
  });

  it('keeps columns that an order does not name behind those before them', () => {
    const three = entryColumns([field, { ...field, id: 'g' }, { ...field, id: 'h' }]);
    const ids = (columns: readonly string[] | null) => inViewOrder(three, { columns }).map(({ id }) => id);
    expect(ids(null)).toEqual(['name', 'f', 'g', 'h']);
    expect(ids(['name', 'h', 'f'])).toEqual(['name', 'h', 'f', 'g']);
    expect(ids(['gone', 'h'])).toEqual(['name', 'f', 'g', 'h']);
  });

  it('asks for no value where none is needed, and joins from the second condition on', async () => {
    const filled = { column: 'f', test: 'is filled', text: '' } as const;
    const { element } = await panel({
      ...PLAIN_VIEW,
      join: 'any',
      conditions: [filled, { ...filled, test: 'contains' }],
    });
    expect(element.querySelector('[aria-label="Value of condition 1"]')).toBeNull();
    expect(element.querySelector('[aria-label="Value of condition 2"]')).not.toBeNull();
    expect(element.querySelector<HTMLSelectElement>('[aria-label="Conditions hold"]')?.value).toBe('any');
  });

  it('keeps a view only under a name, and clears to the plain one', async () => {
    const { one, said, element } = await panel({ ...PLAIN_VIEW, hidden: ['f'] }, 'v');
    const box = element.querySelector<HTMLInputElement>('[aria-label="Name of the view"]') as HTMLInputElement;
    one.keep(box);
    box.value = ' Bright ones ';
    one.keep(box);
    one.clear();
    expect(said).toEqual(['Bright ones', PLAIN_VIEW, ['view', '']]);
    expect(element.textContent).toContain('Save changes');
  });
});
