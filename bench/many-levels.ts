import { ordersBetween, type CollectionContent, type Field, type FieldValue } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';

const MOODS = ['dark', 'ember', 'overcast', 'salt haze'];

/** A collection of levels without content in sets of 100, with fields of all the plain types in turns; the same every time. */
export async function manyLevels(levels: number, fields: number): Promise<CollectionContent> {
  const content = await smallCollection();
  const { one } = content.records.level;
  const { works } = content.records.set;
  const fieldOrders = ordersBetween(null, null, fields);
  const types = ['text', 'number', 'choice', 'yes/no', 'date'] as const;
  content.records.field = Object.fromEntries(
    fieldOrders.map((order, i): [string, Field] => {
      const type = types[i % types.length];
      return [
        `f${i}`,
        { id: `f${i}`, key: `f${i}`, name: `Field ${i}`, type, choices: type === 'choice' ? MOODS : [], order },
      ];
    }),
  );
  const setOrders = ordersBetween(null, null, Math.ceil(levels / 100));
  content.records.set = Object.fromEntries(
    setOrders.map((order, i) => [`s${i}`, { ...works, id: `s${i}`, name: `set ${i + 1}`, order }]),
  );
  content.records.level = Object.fromEntries(
    ordersBetween(null, null, levels).map((order, i) => {
      const number = String(i + 1).padStart(4, '0');
      const values = Object.fromEntries(
        Object.keys(content.records.field).map((key, f): [string, FieldValue] => [
          key,
          valueOf(types[f % types.length], i * 31 + f * 7),
        ]),
      );
      return [
        `l${number}`,
        {
          ...one,
          id: `l${number}`,
          name: `level ${number}`,
          key: `level-${number}`,
          code: `C${number}`,
          set: `s${Math.floor(i / 100)}`,
          order,
          strata: [],
          values,
        },
      ];
    }),
  );
  content.records.stratum = {};
  content.strata.clear();
  return content;
}

function valueOf(type: 'text' | 'number' | 'choice' | 'yes/no' | 'date', seed: number): FieldValue {
  switch (type) {
    case 'text':
      return `note ${(seed * 7919) % 1000}`;
    case 'number':
      return (seed * 104729) % 997;
    case 'choice':
      return MOODS[seed % MOODS.length];
    case 'yes/no':
      return seed % 3 === 0;
    case 'date':
      return `2027-0${1 + (seed % 9)}-1${seed % 10}`;
  }
}
