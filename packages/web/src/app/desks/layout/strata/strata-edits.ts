import {
  RECORDS_DOCUMENT,
  patchedContent,
  plainJson,
  type Level,
  type Operation,
  type Stratum,
  type StratumContent,
} from '@stravel/core';
import { copiedItems } from '../../../edits/copied-items';
import { create, newId, remove, setRecordField } from '../../../edits/operations';

/** Sets the stack of a level, bottom first. */
export function setStack(level: Level, strata: Level['strata']): Operation {
  return setRecordField('level', level, 'strata', plainJson(strata));
}

/** Moves a stratum within its level's stack. @param to its place counted from the bottom, from 0 */
export function moveInStack(level: Level, stratum: string, to: number): Operation[] {
  const entry = level.strata.find((one) => one.stratum === stratum);
  if (!entry) return [];
  const others = level.strata.filter((one) => one !== entry);
  const place = Math.min(Math.max(0, to), others.length);
  const moved = [...others.slice(0, place), entry, ...others.slice(place)];
  return moved.every((one, i) => one === level.strata[i]) ? [] : [setStack(level, moved)];
}

export function switchStratum(level: Level, stratum: string, switchedOff: boolean): Operation[] {
  return [
    setStack(
      level,
      level.strata.map((entry) => (entry.stratum === stratum ? { ...entry, switchedOff } : entry)),
    ),
  ];
}

/** The next stratum of a level's own: the first is for its structure. */
export function addNext(level: Level): ReturnType<typeof addOwned> {
  const count = level.strata.length;
  return count === 0 ? addOwned(level, 'Structure', 'structure') : addOwned(level, `Stratum ${count + 1}`, 'dressing');
}

/** A new stratum of the level's own, on top. */
export function addOwned(
  level: Level,
  name: string,
  role: Stratum['role'],
): { readonly id: string; readonly operations: Operation[] } {
  const stratum: Stratum = { id: newId(), name, role, owner: level.id };
  return {
    id: stratum.id,
    operations: [
      create(RECORDS_DOCUMENT, 'stratum', stratum),
      setStack(level, [...level.strata, { stratum: stratum.id, switchedOff: false }]),
    ],
  };
}

/** Puts strata of other levels on top of a level's stack; what one level owned is shared from then on. */
export function addShared(level: Level, strata: readonly Stratum[]): Operation[] {
  const fresh = strata.filter(({ id }) => !level.strata.some(({ stratum }) => stratum === id));
  if (fresh.length === 0) return [];
  return [
    ...fresh.filter(({ owner }) => owner !== null).map((stratum) => setRecordField('stratum', stratum, 'owner', null)),
    setStack(level, [...level.strata, ...fresh.map(({ id }) => ({ stratum: id, switchedOff: false }))]),
  ];
}

/** Takes a stratum out of some levels' stacks; and away altogether when none is left to have it. */
export function takeOut(
  stratum: Stratum,
  from: readonly Level[],
  others: readonly Level[],
  content: StratumContent | undefined,
): Operation[] {
  const gone = new Set(from.map(({ id }) => id));
  return [
    ...from.map((level) =>
      setStack(
        level,
        level.strata.filter((entry) => entry.stratum !== stratum.id),
      ),
    ),
    ...(content?.patch ?? [])
      .filter((patch) => gone.has(patch.level))
      .map((patch) => remove(stratum.id, 'patch', patch)),
    ...(others.length === 0 ? [remove(RECORDS_DOCUMENT, 'stratum', stratum)] : []),
  ];
}

/** Gives a level its own copy of a shared stratum, as it sees it, in the same place of its stack. */
export function partWays(
  level: Level,
  stratum: Stratum,
  content: StratumContent,
): { readonly id: string; readonly operations: Operation[] } {
  const own: Stratum = { ...stratum, id: newId(), owner: level.id };
  const stack = level.strata.map((entry) => (entry.stratum === stratum.id ? { ...entry, stratum: own.id } : entry));
  return {
    id: own.id,
    operations: [
      create(RECORDS_DOCUMENT, 'stratum', own),
      ...copiedItems(own.id, patchedContent(content, level.id)).operations,
      setStack(level, stack),
      ...content.patch.filter((patch) => patch.level === level.id).map((patch) => remove(stratum.id, 'patch', patch)),
    ],
  };
}
