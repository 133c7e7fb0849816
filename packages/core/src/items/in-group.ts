import { idUses, overIds, type EachId } from './ids';

interface Grouped {
  readonly group?: string | null;
}

const IDS = idUses<Grouped>({ group: { to: 'group' } });

/** What kinds have in common that stand in a group of their stratum and point at nothing else. */
export const IN_GROUP = {
  group: ({ group }: Grouped): string | null => group ?? null,
  ids: <T extends Grouped>(fields: T, each: EachId): T => overIds(fields, each, IDS),
};
