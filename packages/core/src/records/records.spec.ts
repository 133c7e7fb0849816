import { goldenCollection } from '../../../../golden/content';
import { recordUsers, usersOfAll } from '../sets/record-users';
import type { CollectionContent } from '../model/collection-content';
import type { RecordKind } from '../model/records';
import { recordFaults } from '../document/validate-record';
import { RECORD_KINDS, RECORDS, calledAsUser, overRecordIds } from './index';

let records: CollectionContent['records'];

beforeAll(async () => {
  ({ records } = await goldenCollection());
});

/** What the records of a kind point at, as 'field → kind id', ! where nothing may be left loose. */
function pointers(kind: RecordKind): string[] {
  const found = new Set<string>();
  for (const record of Object.values(records[kind])) {
    overRecordIds(kind, record, (id, { to, field, isStrict }) => {
      found.add(`${field} → ${to} ${id}${isStrict ? '!' : ''}`);
      return id;
    });
  }
  return [...found].sort();
}

describe('kinds of records', () => {
  it('point at what they are said to', () => {
    expect(pointers('collection')).toEqual(['readiness.devices → device handheld!', 'readiness.fields → field f-text']);
    expect(pointers('set')).toEqual(['parent → set works!']);
    expect(pointers('field')).toEqual([
      'counted → piece pin!',
      'register → register bells!',
      'target → register moods!',
      'target → set yard!',
    ]);
    expect(pointers('stratum')).toEqual([
      'assemblies → stratum bay!',
      'assemblies → stratum nest!',
      'kit → kit kit!',
      'owner → level one!',
      'owner → level two!',
    ]);
    expect(pointers('cellGrid')).toEqual(['id → level two!', 'resident → stratum base']);
    expect(pointers('levelOrder')).toEqual([
      'id → level one!',
      'id → level three!',
      'id → level two!',
      'resets → carriedValue score!',
      'rules → level one!',
      'value → carriedValue score!',
    ]);
    expect(pointers('rehearsal')).toEqual(['device → device handheld!', 'level → level two!']);
    expect([pointers('kit'), pointers('acceptance'), pointers('device')]).toEqual([[], [], []]);
  });

  it('say of which kinds they keep what they point at', () => {
    for (const kind of RECORD_KINDS) {
      const strict = pointers(kind).flatMap((one) => (one.endsWith('!') ? [/→ (\w+)/.exec(one)?.[1]] : []));
      expect([kind, [...new Set(strict)].sort()]).toEqual([kind, [...RECORDS[kind].pointsAt].sort()]);
    }
  });

  it('have the same users looked for together, and twice, as one by one', () => {
    const all = RECORD_KINDS.flatMap((kind) => Object.keys(records[kind]).map((id) => ({ kind, id })));
    const users = usersOfAll(records, [...all, ...all]);
    const single = all.map(({ kind, id }) => recordUsers(records, kind, id));
    expect(users).toEqual([...single, ...single]);
    expect(single.filter((one) => one.length > 0).length).toBeGreaterThan(15);
  });

  it('keep a record whose ids are left alone, and give it back when they are renamed there and back', () => {
    for (const kind of RECORD_KINDS) {
      for (const record of Object.values(records[kind])) {
        expect(overRecordIds(kind, record, (id) => id)).toBe(record);
        const renamed = overRecordIds(kind, record, (id) => `${id}x`);
        expect(overRecordIds(kind, renamed, (id) => id.slice(0, -1))).toEqual(record);
      }
    }
  });

  it('are sound in the golden collection, and each has words', () => {
    for (const kind of RECORD_KINDS) {
      for (const record of Object.values(records[kind])) expect([kind, recordFaults(kind, record)]).toEqual([kind, []]);
      expect(RECORDS[kind].words.many).not.toBe('');
    }
  });

  it('are called as users by what they use', () => {
    const use = (to: RecordKind, field: string) => ({ to, field, isStrict: true });
    const { levelOrder, rehearsal, stratum } = records;
    expect([
      calledAsUser('levelOrder', levelOrder['one'], use('level', 'id'), records),
      calledAsUser('levelOrder', levelOrder['two'], use('level', 'rules'), records),
      calledAsUser('levelOrder', levelOrder['two'], use('carriedValue', 'resets'), records),
      calledAsUser('rehearsal', rehearsal['walk'], use('device', 'device'), records),
      calledAsUser('stratum', stratum['bay'], use('kit', 'kit'), records),
      calledAsUser('stratum', stratum['base'], use('stratum', 'assemblies'), records),
    ]).toEqual([
      'its unlock rules',
      'the unlock rules of two',
      'the level two',
      'the walk Across in two',
      'the assembly Bay',
      'Base, in which it stands or once stood',
    ]);
  });
});
