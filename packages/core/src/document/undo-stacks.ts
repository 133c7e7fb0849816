import type { Edit } from './operation';

/** What one person can take back and do again; last is next. */
export interface UndoStacks<E extends Pick<Edit, 'id' | 'undoes'>> {
  readonly undo: readonly E[];
  readonly redo: readonly E[];
}

/** Stacks with nothing on them. */
export function emptyUndoStacks<E extends Pick<Edit, 'id' | 'undoes'>>(): UndoStacks<E> {
  return { undo: [], redo: [] };
}

/**
 * The stacks after one more edit of the same person. An edit of its own clears what could be done again; one that takes
 * back the top of a stack moves it to the other.
 */
export function pushEdit<E extends Pick<Edit, 'id' | 'undoes'>>(stacks: UndoStacks<E>, edit: E): UndoStacks<E> {
  if (edit.undoes === null) return { undo: [...stacks.undo, edit], redo: [] };
  const lastUndo = stacks.undo.at(-1);
  if (lastUndo && lastUndo.id === edit.undoes) {
    return { undo: stacks.undo.slice(0, -1), redo: [...stacks.redo, edit] };
  }
  const lastRedo = stacks.redo.at(-1);
  if (lastRedo && lastRedo.id === edit.undoes) {
    return { undo: [...stacks.undo, edit], redo: stacks.redo.slice(0, -1) };
  }
  return {
    undo: stacks.undo.filter((e) => e.id !== edit.undoes),
    redo: stacks.redo.filter((e) => e.id !== edit.undoes),
  };
}
