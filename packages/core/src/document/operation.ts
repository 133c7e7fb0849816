import type { Json } from '../model/json';
import type { EditableKind } from '../model/records';

/**
 * One change of one value. `field` null means the whole record: `before` null creates it, `after` null removes it.
 * A field may name a value inside one nested table: 'values.mood'. An absent value is null.
 */
export interface Operation {
  /** 'records' or the id of a stratum. */
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
  readonly field: string | null;
  readonly before: Json;
  readonly after: Json;
}

/** One change as stored and sent. */
export interface Edit {
  /** Unique for ever; sending it twice is harmless. */
  readonly id: string;
  readonly person: string;
  /** What was done, in words, for history and undo. */
  readonly label: string;
  readonly operations: readonly Operation[];
  /** Id of the edit that this one takes back, null for an edit of its own. */
  readonly undoes: string | null;
}

/** An edit without what it changed: enough to say what can be taken back. */
export type EditHead = Pick<Edit, 'id' | 'label' | 'undoes'>;

/** An edit as it stands in the log. */
export interface LoggedEdit extends Edit {
  /** Place in the collection's log, from 1, without gaps. */
  readonly sequence: number;
  /** Time of acknowledgement, ISO 8601. */
  readonly at: string;
}

/** A value that was not what an operation took it to be. */
export interface Conflict {
  /** Index of the operation in its edit. */
  readonly index: number;
  readonly operation: Operation;
  /** What stands now. */
  readonly current: Json;
}

/** Names the value that an operation changes. */
export function operationTarget(operation: Operation): string {
  return `${operation.document}\u0000${operation.kind}\u0000${operation.id}\u0000${operation.field ?? ''}`;
}

/** The operations that take others back, in the order in which to apply them. */
export function invertOperations(operations: readonly Operation[]): Operation[] {
  return operations.map((operation) => ({ ...operation, before: operation.after, after: operation.before })).reverse();
}
