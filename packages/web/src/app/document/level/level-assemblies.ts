import { Injectable, computed, inject } from '@angular/core';
import {
  EMPTY_CONTENT,
  contentOfKinds,
  itemsOf,
  listOf,
  withAssemblies,
  type AssemblyUse,
  type Group,
  type StratumContent,
} from '@stravel/core';
import { DocumentRegistry } from '../document-registry';
import { StratumDocument } from '../stratum-document';
import { OpenLevel } from './open-level';

/** What documents of laid out assemblies are called, before the id of their stratum. */
export const LAID_PREFIX = 'assembly:';

interface LaidUse {
  readonly use: AssemblyUse;
  readonly content: StratumContent;
}

interface LaidStratum {
  readonly document: StratumDocument;
  /** Assemblies and their versions when it was laid out. */
  readonly versions: string;
  readonly groups: readonly Group[];
  readonly uses: ReadonlyMap<string, LaidUse>;
}

/** The assemblies of the open level laid out, a document for each stratum that has any. A change lays out only the uses that it touched. */
@Injectable({ providedIn: 'root' })
export class LevelAssemblies {
  private readonly openLevel = inject(OpenLevel);
  private readonly registry = inject(DocumentRegistry);
  private readonly laid = new Map<string, LaidStratum>();

  readonly documents = computed(
    (): readonly StratumDocument[] => {
      this.registry.contentVersion();
      const assemblies = this.openLevel.assemblies();
      const versions = [...assemblies].map(([id, { version }]) => `${id}:${version}`).join();
      const strata = this.openLevel.strata();
      for (const id of this.laid.keys()) if (!strata.some((stratum) => stratum.id === id)) this.laid.delete(id);
      return strata.flatMap((stratum) => this.documentOf(stratum, assemblies, versions) ?? []);
    },
    { equal: (a, b) => a.length === b.length && a.every((one, i) => one === b[i]) },
  );

  private documentOf(
    stratum: StratumDocument,
    assemblies: ReadonlyMap<string, StratumDocument>,
    versions: string,
  ): StratumDocument | undefined {
    const before = this.laid.get(stratum.id);
    if (stratum.tables.assembly.size === 0 && !before) return undefined;
    const groups: readonly Group[] = [...stratum.tables.group.values()];
    const uses = [...stratum.tables.assembly.values()];
    const isSame =
      before?.versions === versions &&
      before.uses.size === uses.length &&
      uses.every((use) => before.uses.get(use.id)?.use === use) &&
      isSameList(before.groups, groups);
    if (before && isSame) return before.document;
    const contents = new Map<string, StratumContent>();
    const contentOf = (id: string): StratumContent | undefined => {
      const document = assemblies.get(id);
      if (document && !contents.has(id)) contents.set(id, document.content());
      return contents.get(id);
    };
    const laid = new Map(
      uses.map((use): [string, LaidUse] => {
        const known = before?.versions === versions ? before.uses.get(use.id) : undefined;
        return [
          use.id,
          known?.use === use
            ? known
            : { use, content: withAssemblies({ ...EMPTY_CONTENT, assembly: [use] }, contentOf) },
        ];
      }),
    );
    const document = before?.document ?? new StratumDocument(LAID_PREFIX + stratum.id);
    const content: StratumContent = {
      ...contentOfKinds((kind) => [...laid.values()].flatMap((one) => listOf(one.content, kind))),
      assembly: [],
      group: groups,
    };
    stratum.laid = {
      document,
      items: new Map(
        [...laid].map(([id, { content: own }]) => [
          id,
          [...itemsOf(own)].map(({ kind, item }) => ({ kind, id: item.id })),
        ]),
      ),
    };
    document.fill(content);
    this.laid.set(stratum.id, { document, versions, groups, uses: laid });
    return document;
  }
}

function isSameList(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((one, i) => one === b[i]);
}
