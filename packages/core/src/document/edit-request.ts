import { mixed, object, string, ValidationError, type InferType } from 'yup';
import type { Edit, Operation } from './operation';
import { CoreError } from '../errors';
import { plainZeros } from '../json/plain-zeros';
import { isJsonTable } from '../model/json';
import { RECORDS_DOCUMENT } from '../model/records';
import { RECORD_KINDS, recordSpecOf } from '../records';
import { ITEM_KINDS } from '../items';
import { isEditableKind } from './validate-record';

/** Most operations in one edit. */
export const MAX_OPERATIONS = 50000;

const ID = /^(?!__proto__$)[A-Za-z0-9_:-][A-Za-z0-9._:-]{0,299}$/;
/** An acceptance is named by its finding, 'CODE:subject' or 'CODE:subject@level'. */
const FINDING_ID = /^[A-Za-z0-9._:@-]{1,300}$/;

const schema = object({
  id: string().required().max(80).matches(ID, 'id must be letters, digits, dots, dashes'),
  person: string().required().max(80).matches(ID, 'person must be an id'),
  label: string().required().max(300),
  undoes: string().nullable().defined().max(80),
  // One by one they are looked at below: there may be very many.
  operations: mixed<readonly unknown[]>()
    .required()
    .test('list', 'operations must be a list', (list) => Array.isArray(list))
    .test('least', 'operations field must have at least 1 items', (list) => !Array.isArray(list) || list.length > 0)
    .test(
      'most',
      `operations field must have less than or equal to ${MAX_OPERATIONS} items`,
      (list) => !Array.isArray(list) || list.length <= MAX_OPERATIONS,
    ),
})
  .noUnknown()
  .strict()
  .required();

/**
 * An edit as sent by a client, checked in form; whether it holds is decided against what stands.
 * @throws CoreError 'EDIT_INVALID' naming the operation and the rule
 */
export function checkedEdit(body: unknown): Edit {
  const { operations, ...head } = checkedHead(body);
  assertOperations(operations);
  return { ...head, operations: plainZeros(operations) };
}

function checkedHead(body: unknown): InferType<typeof schema> {
  try {
    return schema.validateSync(body, { strict: true, abortEarly: false });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new CoreError('EDIT_INVALID', `edit: ${error.errors.slice(0, 5).join('; ')}`, {
      errors: error.errors.slice(0, 20),
    });
  }
}

function assertOperations(operations: readonly unknown[]): asserts operations is readonly Operation[] {
  operations.forEach(checkOperation);
}

/** A value as a message tells it. */
function told(value: unknown): string {
  return typeof value === 'string' ? value : JSON.stringify(value);
}

function checkOperation(operation: unknown, index: number): void {
  const fail = (rule: string): never => {
    throw new CoreError('EDIT_INVALID', `edit: operations[${index}] ${rule}`, { index });
  };
  if (!isJsonTable(operation)) return fail(`must be a table, is ${String(operation)}`);
  const { document, kind, id, field, before, after } = operation;
  if (typeof document !== 'string' || !ID.test(document)) return fail(`names no document, has ${told(document)}`);
  if (typeof kind !== 'string' || !isEditableKind(kind))
    return fail(`kind must be one of ${[...RECORD_KINDS, ...ITEM_KINDS].join(', ')}, is ${told(kind)}`);
  if (typeof id !== 'string' || !(recordSpecOf(kind)?.isNamedByFinding ? FINDING_ID : ID).test(id))
    return fail(`id must be an id, is ${told(id)}`);
  const isItem = (ITEM_KINDS as readonly string[]).includes(kind);
  if (isItem === (document === RECORDS_DOCUMENT)) return fail(`a ${kind} cannot be in ${document}`);
  if (
    field !== null &&
    (typeof field !== 'string' || !/^[A-Za-z][A-Za-z0-9]*(\.[A-Za-z0-9_-][A-Za-z0-9._-]*)?$/.test(field))
  ) {
    return fail(`field must be a name or null, is ${told(field)}`);
  }
  if (field === 'id') return fail('an id is kept for ever');
  if (before === undefined || after === undefined) return fail('needs both before and after; an absent value is null');
  if (field === null && before === null && after === null) return fail('neither creates nor removes anything');
}
