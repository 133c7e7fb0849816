import {
  CoreError,
  EMPTY_CONTENT,
  MODEL_VERSION,
  UPGRADES,
  checkedRecord,
  isJsonTable,
  parseJson,
  type AssemblyUse,
  type Item,
  type ItemKind,
  type StratumContent,
} from '@stravel/core';
import { LAYOUT_KINDS, type PlacedItem } from './item-edits';

const FORMAT = 'stravel-items';
const VERSION = 2;
/** Says no version of the model; what it holds is of the first. */
const FIRST_VERSION = 1;

/** Things as text for the clipboard: their places are kept exactly. */
export function copiedText(items: readonly PlacedItem[], pieceNames: (piece: string) => string | undefined): string {
  const content: Partial<Record<ItemKind, Item[]>> = {};
  const pieces: Record<string, string> = {};
  for (const { kind, item } of items) {
    (content[kind] ??= []).push(item);
    if (kind === 'assembly')
      pieces[(item as AssemblyUse).assembly] =
        pieceNames((item as AssemblyUse).assembly) ?? (item as AssemblyUse).assembly;
    if ('piece' in item) pieces[item.piece] = pieceNames(item.piece) ?? item.piece;
  }
  return JSON.stringify({ format: FORMAT, version: VERSION, model: MODEL_VERSION, pieces, content });
}

/** What a paste brings. */
export interface PastedItems {
  readonly content: StratumContent;
  readonly count: number;
  /** Names of pieces that this collection lacks; their placements are left out. */
  readonly missing: readonly string[];
  readonly leftOut: number;
}

/** Whether a text was copied from here. */
export function isCopiedText(text: string): boolean {
  return text.startsWith(`{"format":"${FORMAT}"`);
}

/**
 * Reads things from the clipboard.
 * @param hasPiece whether this collection has a piece or an assembly
 * @throws CoreError 'PASTE_UNREADABLE' naming what is wrong and where
 */
export function readCopied(text: string, hasPiece: (piece: string) => boolean): PastedItems {
  const fail = (why: string): never => {
    throw new CoreError('PASTE_UNREADABLE', `paste: ${why}`);
  };
  const whole = parseJson(text, 'paste') as {
    version?: unknown;
    model?: unknown;
    pieces?: unknown;
    content?: unknown;
  } | null;
  if (whole === null || typeof whole !== 'object' || (whole.version !== VERSION && whole.version !== FIRST_VERSION))
    return fail(`its version is ${JSON.stringify(whole?.version ?? null)}, this Stravel reads ${VERSION}`);
  const model = UPGRADES.checked(whole.model, 'paste');
  if (typeof whole.content !== 'object' || whole.content === null) return fail('it has no content');
  const names = (typeof whole.pieces === 'object' && whole.pieces !== null ? whole.pieces : {}) as Record<
    string,
    unknown
  >;
  const lists = whole.content as Record<string, unknown>;
  const unknown = Object.keys(lists).find((kind) => !(LAYOUT_KINDS as readonly string[]).includes(kind));
  if (unknown !== undefined) return fail(`things of the kind ${JSON.stringify(unknown)} cannot be pasted`);
  const missing = new Set<string>();
  let [count, leftOut] = [0, 0];
  const content = Object.fromEntries(
    LAYOUT_KINDS.map((kind): [ItemKind, Item[]] => {
      const list = lists[kind] ?? [];
      if (!Array.isArray(list)) return fail(`content.${kind} is not a list`);
      const items = list.flatMap((value: unknown) => {
        // A group of another stratum means nothing here.
        const given = isJsonTable(value) ? UPGRADES.record(kind, value, model) : value;
        const item: Item = checkedRecord<ItemKind>(kind, withoutGroup(given));
        const wanted =
          'piece' in item ? (item.piece as string) : kind === 'assembly' ? (item as AssemblyUse).assembly : undefined;
        if (wanted !== undefined && !hasPiece(wanted)) {
          missing.add(typeof names[wanted] === 'string' ? names[wanted] : wanted);
          leftOut++;
          return [];
        }
        count++;
        return [item];
      });
      return [kind, items];
    }),
  );
  return { content: { ...EMPTY_CONTENT, ...content }, count, missing: [...missing].sort(), leftOut };
}

function withoutGroup(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).filter(([key]) => key !== 'group'));
}
