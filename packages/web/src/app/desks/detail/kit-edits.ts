import { keyFault, takenKeys, type Kit, type Operation, type RecordTables } from '@stravel/core';
import { setRecordField } from '../../edits/operations';

const MAX_NAME_LENGTH = 200;

/** What is wrong with a name and a key for a kit; '' when nothing is. */
export function kitFault(tables: Pick<RecordTables, 'level' | 'kit'>, kit: Kit, name: string, key: string): string {
  if (name === '') return 'A kit needs a name.';
  if (name.length > MAX_NAME_LENGTH)
    return `A name has at most ${MAX_NAME_LENGTH} characters; this one has ${name.length}.`;
  const fault = keyFault(key);
  if (fault !== undefined) return `The key ${fault}.`;
  return key !== kit.key && takenKeys(tables).has(key) ? `The key ${key} is taken by another level or kit.` : '';
}

/** What gives a kit another name or key. */
export function nameKit(kit: Kit, name: string, key: string): Operation[] {
  return [
    ...(name === kit.name ? [] : [setRecordField('kit', kit, 'name', name)]),
    ...(key === kit.key ? [] : [setRecordField('kit', kit, 'key', key)]),
  ];
}
