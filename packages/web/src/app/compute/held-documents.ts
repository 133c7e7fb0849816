import { levelContent, type Level, type LevelContent, type Stratum, type StratumContent } from '@stravel/core';
import { StratumDocument } from '../document/stratum-document';
import type { HeldVersion, HoldMessage } from './hold-protocol';

/** A level without the content of its strata: those that hold them are named. */
export interface HeldLevel {
  readonly level: Level;
  /** Its stack, bottom first. */
  readonly strata: readonly Stratum[];
  /** Ids of the assemblies that may stand in it. */
  readonly assemblies: readonly string[];
}

interface HeldDocument {
  readonly load: number;
  version: number;
  readonly document: StratumDocument;
  content: StratumContent | undefined;
}

/** The documents that a worker holds, as the page last told it. */
export class HeldDocuments {
  private readonly held = new Map<string, HeldDocument>();

  take(message: HoldMessage): void {
    if (message.type === 'release') {
      this.held.delete(message.document);
      return;
    }
    const { document: name, load, version } = message;
    if (message.type === 'hold') {
      const document = new StratumDocument(name);
      document.fillWith(message.whole);
      this.held.set(name, { load, version, document, content: undefined });
      return;
    }
    const one = this.held.get(name);
    // A change of what is not held is left out: the run that needs it is told so.
    if (one?.load !== load || one.version !== message.from) return;
    one.document.putAll(message.changes.map((change) => ({ ...change, document: name })));
    one.version = version;
    one.content = undefined;
  }

  /** Those that are not held as they are asked for. */
  lacking(on: readonly HeldVersion[]): string[] {
    return on.flatMap(({ document, load, version }) => {
      const one = this.held.get(document);
      return one?.load === load && one.version === version ? [] : [document];
    });
  }

  /** A level with the content of its strata and assemblies. */
  level({ level, strata, assemblies }: HeldLevel): LevelContent {
    return levelContent(
      level,
      strata.map((stratum) => ({ stratum, content: this.contentOf(stratum.id) })),
      new Map(assemblies.map((id) => [id, this.contentOf(id)])),
    );
  }

  private contentOf(id: string): StratumContent {
    const one = this.held.get(id);
    if (!one) throw new Error(`worker: holds no document ${id}`);
    return (one.content ??= one.document.content());
  }
}
