import {
  assembliesWithin,
  levelContent,
  type Level,
  type LevelContent,
  type RecordTables,
  type StratumContent,
} from '@stravel/core';
import type { DocumentRegistry } from '../document-registry';

/** A level with the content of its strata and assemblies, loaded when they are not yet. */
export async function storedContent(
  level: Level,
  { stratum: records }: RecordTables,
  documents: DocumentRegistry,
): Promise<LevelContent> {
  const isThere = (id: string): boolean => Object.hasOwn(records, id);
  const contentOf = async (id: string): Promise<StratumContent> => (await documents.stratum(id)).content();
  const stack = level.strata.map(({ stratum }) => stratum).filter(isThere);
  const strata = await Promise.all(stack.map(async (id) => ({ stratum: records[id], content: await contentOf(id) })));
  const assemblies = await Promise.all(
    [...assembliesWithin(records, stack)].filter(isThere).map(async (id) => [id, await contentOf(id)] as const),
  );
  return levelContent(level, strata, new Map(assemblies));
}
