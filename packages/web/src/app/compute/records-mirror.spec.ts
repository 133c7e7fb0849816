import { TestBed } from '@angular/core/testing';
import { emptyRecordTables, type LevelFiguresTable, type RecordTables } from '@stravel/core';
import type { MirrorAnswer, MirrorRequest } from './mirror-protocol';
import { RecordsMirror } from './records-mirror';
import { MIRROR_FACTORY } from './worker-factory';

const set = (id: string): RecordTables['set'][string] => ({ id, name: id, parent: null, order: 'a', binned: null });
const many = (count: number): RecordTables => ({
  ...emptyRecordTables(),
  set: Object.fromEntries(Array.from({ length: count }, (_unused, i) => [`s${i}`, set(`s${i}`)])),
});

describe('the worker that keeps a copy of the records', () => {
  let asked: MirrorRequest[];
  let answer: (data: MirrorAnswer) => void;
  let fail: () => void;
  let mirror: RecordsMirror;

  beforeEach(() => {
    jest.useFakeTimers();
    asked = [];
    const worker = {
      postMessage: (request: MirrorRequest) => asked.push(request),
      addEventListener: (name: string, listen: (event: { data: MirrorAnswer }) => void) => {
        if (name === 'error') fail = () => listen({ data: { round: 0, findings: [] } });
        else answer = (data) => listen({ data });
      },
      terminate: () => undefined,
    };
    TestBed.configureTestingModule({ providers: [{ provide: MIRROR_FACTORY, useValue: () => worker }] });
    mirror = TestBed.inject(RecordsMirror);
  });
  afterEach(() => jest.useRealTimers());

  const told = () =>
    asked.map((request) =>
      request.type === 'records'
        ? `${request.changed.map(([id]) => id).join(',')} -${request.gone.join(',')}`
        : request.type,
    );

  it('is sent everything once, then only what changed and what is gone', () => {
    const figures: LevelFiguresTable = {};
    const first = many(3);
    mirror.follow(first, figures);
    jest.runAllTimers();
    expect(told()).toEqual(['s0,s1,s2 -', 'figures', 'check']);
    asked.length = 0;
    mirror.follow({ ...first, set: { s0: first.set['s0'], s1: { ...first.set['s1'], name: 'new' } } }, figures);
    jest.runAllTimers();
    expect(told()).toEqual(['s1 -s2', 'check']);
  });

  it('is sent very many in slices, and asked once all are there', () => {
    mirror.follow(many(1000), {});
    jest.runAllTimers();
    expect(asked.map((request) => (request.type === 'records' ? request.changed.length : request.type))).toEqual([
      400,
      400,
      200,
      'figures',
      'check',
    ]);
  });

  it('is sent everything again when it failed', () => {
    const tables = many(2);
    mirror.follow(tables, {});
    jest.runAllTimers();
    fail();
    asked.length = 0;
    mirror.follow({ ...tables, set: { ...tables.set, s1: { ...tables.set['s1'], name: 'new' } } }, {});
    jest.runAllTimers();
    expect(told()).toEqual(['s0,s1 -', 'figures', 'check']);
  });

  it('is believed only when nothing was asked since', () => {
    const finding = { id: 'x' } as never;
    mirror.follow(many(1), {});
    jest.runAllTimers();
    mirror.follow(many(2), {});
    jest.runAllTimers();
    answer({ round: 1, findings: [finding] });
    expect(mirror.findings()).toEqual([]);
    answer({ round: 2, findings: [finding] });
    expect(mirror.findings()).toEqual([finding]);
  });
});
