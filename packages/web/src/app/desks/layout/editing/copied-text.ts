import {
  CoreError,
  EMPTY_CONTENT,
  MODEL_VERSION,
  UPGRADES,
  anyItem,
  checkedRecord,
  contentOfSome,
  isJsonTable,
  parseJson,
  type ItemKind,
  type ItemOfKind,
  type Json,
  type StratumContent,
} from '@stravel/core';
import { LAYOUT_KINDS } from './item-edits';
import { sourcesOf } from './item-names';
import { ofKind, type PlacedItem } from './placed-item';

const FORMAT = 'stravel-items';
const VERSION = 2;
/** Says no version of the model; what it holds is of the first. */
const FIRST_VERSION = 1;

/** Things as text for the clipboard: their places are kept exactly. @param nameOf a piece or an assembly */
export function copiedText(items: readonly PlacedItem[], nameOf: (source: string) => string | undefined): string {
  const sources = new Set(items.flatMap((one) => sourcesOf(one).map(({ id }) => id)));
  const pieces = Object.fromEntries([...sources].map((id) => [id, nameOf(id) ?? id]));
  const content = contentOfSome(new Set(items.map(({ kind }) => kind)), (kind) =>
    ofKind(items, kind).map(({ item }) => item),
  );
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
 * @param hasSource whether this collection has a piece or an assembly
 * @throws CoreError 'PASTE_UNREADABLE' naming what is wrong and where
 */
export function readCopied(text: string, hasSource: (source: string) => boolean): PastedItems {
  const fail = (why: string): never => {
    throw new CoreError('PASTE_UNREADABLE', `paste: ${why}`);
  };
  const read = parseJson(text, 'paste');
  const whole = isJsonTable(read) ? read : {};
  const version = whole['version'] ?? null;
  if (version !== VERSION && version !== FIRST_VERSION)
    return fail(`its version is ${JSON.stringify(version)}, this Stravel reads ${VERSION}`);
  const model = UPGRADES.checked(whole['model'], 'paste');
  const { content: lists, pieces: names } = whole;
  if (!isJsonTable(lists)) return fail('it has no content');
  const unknown = Object.keys(lists).find((kind) => !LAYOUT_KINDS.some((one) => one === kind));
  if (unknown !== undefined) return fail(`objects of the kind ${JSON.stringify(unknown)} cannot be pasted`);
  const missing = new Set<string>();
  let [count, leftOut] = [0, 0];
  const take = <K extends ItemKind>(kind: K, value: Json): ItemOfKind[K][] => {
    // A group of another stratum means nothing here.
    const item = checkedRecord(kind, withoutGroup(isJsonTable(value) ? UPGRADES.record(kind, value, model) : value));
    const lacks = sourcesOf(anyItem<ItemKind>(kind, item)).filter(({ id }) => !hasSource(id));
    if (lacks.length === 0) {
      count++;
      return [item];
    }
    for (const { id } of lacks) missing.add(nameIn(names, id));
    leftOut++;
    return [];
  };
  const content = contentOfSome(LAYOUT_KINDS, (kind) => {
    const list = lists[kind] ?? [];
    return Array.isArray(list)
      ? list.flatMap((value: Json) => take(kind, value))
      : fail(`content.${kind} is not a list`);
  });
  return { content: { ...EMPTY_CONTENT, ...content }, count, missing: [...missing].sort(), leftOut };
}

function nameIn(names: Json | undefined, id: string): string {
  const name = isJsonTable(names) && Object.hasOwn(names, id) ? names[id] : undefined;
  return typeof name === 'string' ? name : id;
}

function withoutGroup(value: unknown): unknown {
  return isJsonTable(value) ? Object.fromEntries(Object.entries(value).filter(([key]) => key !== 'group')) : value;
}
