import {
  PACK_FOLDER_PATTERN,
  PLAIN_TARGET,
  RECORDS_DOCUMENT,
  heldAt,
  ordersBetween,
  targetsOf,
  type Json,
  type Operation,
  type RecordTables,
  type Target,
} from '@stravel/core';
import { freeName } from '../../edits/free-name';
import { create, newId, setRecordField } from '../../edits/operations';

/** A name is cut to so many characters, so that a number has room behind it. */
const MAX_COPIED_NAME = 190;

type Tables = Pick<RecordTables, 'target'>;

/** What changes a target, and the target that is changed: the plain one of a collection without any becomes its own. */
export interface TargetChange {
  readonly id: string;
  readonly operations: readonly Operation[];
}

/** Sets fields of a target, each by its path: 'name', or 'rules.tiling'. */
export function setTarget(tables: Tables, target: Target, fields: Readonly<Record<string, Json>>): TargetChange {
  const own = heldAt(tables.target, target.id);
  const made = own ?? firstTarget();
  return {
    id: made.id,
    operations: [
      ...(own ? [] : [create(RECORDS_DOCUMENT, 'target', made)]),
      ...Object.entries(fields).map(([path, value]) => setRecordField('target', made, path, value)),
    ],
  };
}

/** A target like another, behind all others. */
export function copyTarget(tables: Tables, original: Target, name: string): TargetChange {
  const own = Object.keys(tables.target).length > 0;
  const first = firstTarget();
  const all = own ? targetsOf(tables) : [first];
  const [order] = ordersBetween(all[all.length - 1].order, null);
  const freed = freeName(name.slice(0, MAX_COPIED_NAME), (one) => all.every((target) => target.name !== one));
  const folder = freeName(folderFrom(freed), (one) => folderFault(all, '', one) === '');
  const copy: Target = { ...original, id: newId(), name: freed, folder, order };
  return {
    id: copy.id,
    operations: [...(own ? [] : [create(RECORDS_DOCUMENT, 'target', first)]), create(RECORDS_DOCUMENT, 'target', copy)],
  };
}

/** What is wrong with a folder of a target, in a sentence; '' when nothing. @param id of the target */
export function folderFault(targets: readonly Target[], id: string, folder: string): string {
  if (!PACK_FOLDER_PATTERN.matches.test(folder))
    return 'Letters, digits, spaces, dashes and underscores, at most 60; the first is a letter or a digit.';
  const other = targets.find((one) => one.id !== id && one.folder.toLowerCase() === folder.toLowerCase());
  return other ? `${other.name} is packed into ${other.folder}: choose another folder.` : '';
}

function firstTarget(): Target {
  const [order] = ordersBetween(null, null);
  return { ...PLAIN_TARGET, id: newId(), order };
}

function folderFrom(name: string): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 50);
  return plain === '' ? 'target' : plain;
}
