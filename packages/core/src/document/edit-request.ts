import { mixed, object, string, ValidationError } from 'yup';
import type { Edit, Operation } from './operation';
import { CoreError } from '../errors';
import { plainZeros } from '../json/plain-zeros';
import type { Json } from '../model/json';
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
  try {
    schema.validateSync(body, { strict: true, abortEarly: false });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new CoreError('EDIT_INVALID', `edit: ${error.errors.slice(0, 5).join('; ')}`, {
      errors: error.errors.slice(0, 20),
    });
  }
  const edit = body as Edit;
  edit.operations.forEach(checkOperation);
  const operations = plainZeros(edit.operations as unknown as Json) as unknown as Edit['operations'];
  return operations === edit.operations ? edit : { ...edit, operations };
}

function checkOperation(operation: Operation, index: number): void {
  const fail = (rule: string): never => {
    throw new CoreError('EDIT_INVALID', `edit: operations[${index}] ${rule}`, { index });
  };
  if (typeof operation !== 'object' || operation === null) fail(`must be a table, is ${String(operation)}`);
  const { document, kind, id, field, before, after } = operation;
  if (typeof document !== 'string' || !ID.test(document)) fail(`names no document, has ${String(document)}`);
  if (typeof kind !== 'string' || !isEditableKind(kind))
    fail(`kind must be one of ${[...RECORD_KINDS, ...ITEM_KINDS].join(', ')}, is ${String(kind)}`);
  if (typeof id !== 'string' || !(recordSpecOf(kind)?.isNamedByFinding ? FINDING_ID : ID).test(id))
    fail(`id must be an id, is ${String(id)}`);
  const isItem = (ITEM_KINDS as readonly string[]).includes(kind);
  if (isItem === (document === RECORDS_DOCUMENT)) fail(`a ${kind} does not stand in ${document}`);
  if (
    field !== null &&
    (typeof field !== 'string' || !/^[A-Za-z][A-Za-z0-9]*(\.[A-Za-z0-9_-][A-Za-z0-9._-]*)?$/.test(field))
  ) {
    fail(`field must be a name or null, is ${String(field)}`);
  }
  if (field === 'id') fail('an id is kept for ever');
  if (before === undefined || after === undefined) fail('needs both before and after; an absent value is null');
  if (field === null && before === null && after === null) fail('neither creates nor removes anything');
}
