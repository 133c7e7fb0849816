import { CoreError } from '../errors';
import type { Edit, Operation } from './operation';

/** From so many operations on an edit travels as lines, and is told of by its number. */
export const LONG_EDIT_OPERATIONS = 1000;
/** Type of an edit as lines of JSON: its head, then an operation a line. */
export const EDIT_LINES_TYPE = 'application/x-ndjson';

/** Whether an edit is one of many operations. */
export function isLongEdit({ operations }: { readonly operations: readonly Operation[] }): boolean {
  return operations.length > LONG_EDIT_OPERATIONS;
}

/** An edit as lines, one after the other. */
export function* linesOfEdit({ operations, ...head }: Edit): Generator<string> {
  yield `${JSON.stringify(head)}\n`;
  for (const operation of operations) yield `${JSON.stringify(operation)}\n`;
}

/**
 * What lines hold, in the form of an edit; whether it is one is for `checkedEdit` to say. An empty line at the end is none.
 * @throws CoreError 'EDIT_INVALID' naming the line that is no JSON, or a head that brings operations
 */
export function editOfLines(text: string): unknown {
  const lines = text.split('\n');
  if (lines.at(-1)?.trim() === '') lines.pop();
  const read = lines.map((line, i): unknown => {
    try {
      return JSON.parse(line);
    } catch (error) {
      throw new CoreError('EDIT_INVALID', `edit: line ${i + 1} is not JSON: ${(error as Error).message}`, {
        line: i + 1,
      });
    }
  });
  const [head, ...operations] = read;
  if (typeof head !== 'object' || head === null || Array.isArray(head))
    throw new CoreError('EDIT_INVALID', 'edit: line 1 must be a table with id, person, label and undoes', { line: 1 });
  if (Object.hasOwn(head, 'operations'))
    throw new CoreError('EDIT_INVALID', 'edit: line 1 must not have operations; they follow, one a line', { line: 1 });
  return { ...head, operations };
}
