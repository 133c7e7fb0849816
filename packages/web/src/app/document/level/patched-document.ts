import {
  isLaidOver,
  patchedContent,
  patchedItem,
  patchId,
  type Item,
  type ItemKind,
  type Operation,
  type Patch,
  plainRecordIfAny,
} from '@stravel/core';
import { StratumDocument, type StratumChange } from '../stratum-document';

/** A shared stratum as one level sees it, kept up with the stratum and the level's patches. */
export interface PatchedDocument {
  readonly level: string;
  readonly shared: StratumDocument;
  readonly document: StratumDocument;
  readonly stop: () => void;
}

/** Whether a level has anything of a stratum otherwise. */
export function hasPatches(document: StratumDocument, level: string): boolean {
  for (const patch of document.tables.patch.values()) if (patch.level === level) return true;
  return false;
}

/** Lays a level's patches over a shared stratum. */
export function patchedDocument(shared: StratumDocument, level: string): PatchedDocument {
  const document = new StratumDocument(shared.id);
  const fill = (): void => document.fill(patchedContent(shared.content(), level));
  fill();
  // What a patch was about can no longer be asked once it is gone.
  let targets = new Map<string, Pick<Patch, 'kind' | 'target'>>();
  const note = (): void => {
    targets = new Map(
      [...shared.tables.patch.values()].filter((patch) => patch.level === level).map((patch) => [patch.id, patch]),
    );
  };
  note();
  const follow = ({ whole, items }: StratumChange): void => {
    if (whole) {
      fill();
      note();
      return;
    }
    const touched = new Map<string, { kind: ItemKind; id: string }>();
    for (const { kind, id } of items) {
      if (!isLaidOver(kind)) touched.set(`${kind} ${id}`, { kind, id });
      else {
        const patch = shared.tables.patch.get(id) ?? targets.get(id);
        if (patch && patchId(level, patch.target) === id)
          touched.set(`${patch.kind} ${patch.target}`, { kind: patch.kind, id: patch.target });
      }
    }
    if (items.some(({ kind }) => isLaidOver(kind))) note();
    document.apply(
      [...touched.values()].map(({ kind, id }): Operation => {
        const seen = patchedItem<Item>(kind, shared.item(kind, id), shared.tables.patch.get(patchId(level, id)));
        return {
          document: shared.id,
          kind,
          id,
          field: null,
          before: null,
          after: plainRecordIfAny(seen) ?? null,
        };
      }),
    );
  };
  return { level, shared, document, stop: shared.listen(follow) };
}
