import {
  assembliesWithin,
  levelContent,
  type Level,
  type LevelContent,
  type RecordTables,
  EMPTY_CONTENT,
  type StratumContent,
} from '@stravel/core';
import type { HeldLevel } from '../../compute/held-documents';
import type { DocumentRegistry } from '../document-registry';
import type { StratumDocument } from '../stratum-document';

/** A level with the documents that hold its strata and assemblies. */
export interface StoredLevel {
  readonly held: HeldLevel;
  readonly documents: readonly StratumDocument[];
}

/** A level with its documents, loaded when they are not yet. */
export async function storedLevel(
  level: Level,
  { stratum: records }: RecordTables,
  registry: DocumentRegistry,
): Promise<StoredLevel> {
  const stack = level.strata.map(({ stratum }) => stratum).filter((id) => Object.hasOwn(records, id));
  const assemblies = [...assembliesWithin(records, stack)].filter((id) => Object.hasOwn(records, id));
  const documents = await Promise.all([...new Set([...stack, ...assemblies])].map((id) => registry.stratum(id)));
  return { held: { level, strata: stack.map((id) => records[id]), assemblies }, documents };
}

/** A level with the content of its strata and assemblies, loaded when they are not yet. */
export async function storedContent(
  level: Level,
  tables: RecordTables,
  registry: DocumentRegistry,
): Promise<LevelContent> {
  const { held, documents } = await storedLevel(level, tables, registry);
  const contents = new Map(documents.map((document) => [document.id, document.content()]));
  const contentOf = (id: string): StratumContent => contents.get(id) ?? EMPTY_CONTENT;
  return levelContent(
    level,
    held.strata.map((stratum) => ({ stratum, content: contentOf(stratum.id) })),
    new Map(held.assemblies.map((id) => [id, contentOf(id)])),
  );
}
