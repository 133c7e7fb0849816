import { TestBed } from '@angular/core/testing';
import { emptyRecordTables, unlockModel, type Level, type LevelOrder, type RecordTables } from '@stravel/core';
import { OrderCard } from './order-card';
import { changeOrder, connectLevels, newCarriedValue } from './order-edits';
import { OrderGraphView } from './order-graph-view';
import { PlayThrough, playMoves, type PlayMove } from './play-through';

const level = (id: string, order: string): Level => ({
  id,
  name: id,
  set: 's',
  order,
  purpose: 'play',
  key: 'level',
  code: '',
  values: {},
  strata: [],
  openSky: false,
  bounds: null,
  binned: null,
});
const orders: Record<string, LevelOrder> = {
  a: { id: 'a', rules: [{ kind: 'start' }], gains: [{ value: 'shards', least: 0, most: 5 }], resets: [] },
  b: { id: 'b', rules: [{ kind: 'after', levels: ['a'], need: 'all' }], gains: [], resets: [] },
  c: { id: 'c', rules: [{ kind: 'value', value: 'shards', least: 4 }, { kind: 'code' }], gains: [], resets: [] },
};
const tables: RecordTables = {
  ...emptyRecordTables(),
  set: { s: { id: 's', name: 'S', parent: null, order: 'a0', binned: null } },
  level: { a: level('a', 'a0'), b: level('b', 'a1'), c: level('c', 'a2'), d: level('d', 'a3') },
  levelOrder: orders,
  carriedValue: { shards: { id: 'shards', name: 'Shards', start: 0, counts: 'once', order: 'a0' } },
};
const model = unlockModel(tables);

describe('edits of the order', () => {
  it('make the record of a level that has none, and change the one that has', () => {
    expect(changeOrder(tables, 'd', 'resets', ['shards'])[0]).toMatchObject({
      field: null,
      after: { id: 'd', rules: [], gains: [], resets: ['shards'] },
    });
    expect(changeOrder(tables, 'a', 'resets', ['shards'])[0]).toMatchObject({
      field: 'resets',
      before: [],
      after: ['shards'],
    });
    expect(newCarriedValue(tables).value.order > 'a0').toBe(true);
  });

  it('join the rule that asks for all, and connect nothing twice or to itself', () => {
    expect(connectLevels(tables, 'c', 'b')[0].after).toEqual([{ kind: 'after', levels: ['a', 'c'], need: 'all' }]);
    expect(connectLevels(tables, 'a', 'c')[0].after).toHaveLength(3);
    expect(connectLevels(tables, 'a', 'b')).toEqual([]);
    expect(connectLevels(tables, 'a', 'a')).toEqual([]);
  });
});

describe('a play of one’s own', () => {
  const play = (id: string, shards: number): PlayMove => ({ kind: 'play', step: { level: id, collected: { shards } } });

  it('opens what the rules say, and stops where they no longer allow it', () => {
    const { states, fault } = playMoves(model, [play('a', 4), play('c', 0), play('d', 0)]);
    expect(states.map(({ open }) => [...open])).toEqual([['a'], ['a', 'b', 'c'], ['a', 'b', 'c']]);
    expect(fault).toBe('play: d is not unlocked');
  });

  async function panel(moves: readonly PlayMove[]) {
    const fixture = TestBed.createComponent(PlayThrough);
    fixture.componentRef.setInput('model', model);
    fixture.componentRef.setInput('moves', moves);
    const said: (readonly PlayMove[])[] = [];
    fixture.componentInstance.moved.subscribe((next) => said.push(next));
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const submit = async () => {
      element.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }));
      await fixture.whenStable();
    };
    return { element, said, submit };
  }

  it('plays with what was typed, and says what is too much', async () => {
    const { element, said, submit } = await panel([]);
    const box = element.querySelector('input') as HTMLInputElement;
    expect(box.value).toBe('5');
    box.value = '9';
    await submit();
    expect(said).toEqual([]);
    expect(element.querySelector('[role=alert]')?.textContent).toContain('gives 0 to 5 Shards, not 9');
    box.value = '2';
    await submit();
    expect(said).toEqual([[play('a', 2)]]);
  });

  it('tells what was played and what it opened', async () => {
    const { element } = await panel([play('a', 1), { kind: 'code', level: 'c' }]);
    expect(
      [...element.querySelectorAll('li')].map(({ textContent }) => textContent?.trim().replace(/\s+/g, ' ')),
    ).toEqual(['a unlocks b', 'Code of c unlocks c']);
  });
});

describe('the card of a level', () => {
  async function card(id: string) {
    const fixture = TestBed.createComponent(OrderCard);
    const inputs = {
      level: tables.level[id],
      order: orders[id],
      levels: Object.values(tables.level),
      values: model.values,
      fields: [],
    };
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    const one = fixture.componentInstance;
    const said: unknown[] = [];
    one.rulesChanged.subscribe((rules) => said.push(rules));
    one.gainsChanged.subscribe((gains) => said.push(gains));
    one.resetsChanged.subscribe((resets) => said.push(resets));
    return { one, said };
  }

  it('turns a rule into another kind, with sound values to begin with', async () => {
    const { one, said } = await card('b');
    one.setKind(0, 'value');
    one.setKind(0, 'after');
    one.addRule();
    one.dropSource(0, orders['b'].rules[0] as never, 'a');
    one.addSource(0, orders['b'].rules[0] as never, 'a');
    expect(said).toEqual([
      [{ kind: 'value', value: 'shards', least: 1 }],
      [{ kind: 'after', levels: ['a'], need: 'all' }],
      [orders['b'].rules[0], { kind: 'start' }],
      [],
    ]);
  });

  it('keeps the least below the most, and takes no number that is none', async () => {
    const { one, said } = await card('a');
    one.setAmount(0, 'least', '7');
    one.setAmount(0, 'most', '-2');
    one.setAmount(0, 'most', 'many');
    one.addGain();
    one.toggleReset('shards');
    expect(said).toEqual([
      [{ value: 'shards', least: 7, most: 7 }],
      [{ value: 'shards', least: -2, most: -2 }],
      ['shards'],
    ]);
  });
});

describe('the graph', () => {
  it('numbers the way that a finding shows and draws its edges', async () => {
    const fixture = TestBed.createComponent(OrderGraphView);
    const graph = {
      nodes: [
        { id: 'a', x: 100, y: 30 },
        { id: 'b', x: 100, y: 120 },
      ],
      edges: [{ from: 'a', to: 'b', text: 'all', points: [[100, 51] as const, [100, 99] as const] }],
      width: 200,
      height: 160,
    };
    const levels = new Map(
      ['a', 'b'].map((id) => [id, { id, number: '1', name: id, text: '', state: 'never' as const }]),
    );
    for (const [name, value] of Object.entries({ graph, levels, selected: 'a', path: ['b'] }))
      fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    expect(element.querySelector('.edge.touches')?.getAttribute('d')).toBe('M100 51L100 99');
    expect([...element.querySelectorAll('text.step')].map(({ textContent }) => textContent)).toEqual(['1']);
    expect(element.querySelector('.level')?.getAttribute('aria-label')).toBe('1 a, can never unlock');
  });
});
