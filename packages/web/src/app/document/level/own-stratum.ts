import type { Level, RecordTables, Stratum } from '@stravel/core';

/** The first stratum that a level owns: what other desks than Layout draw goes there; undefined where it has none. */
export function ownStratum({ id, strata }: Level, tables: Pick<RecordTables, 'stratum'>): Stratum | undefined {
  return strata.map(({ stratum }) => tables.stratum[stratum]).find((one) => one?.owner === id);
}
