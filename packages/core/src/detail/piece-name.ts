export const MAX_PIECE_NAME_LENGTH = 100;

/** A name without characters that no file may have, and without dots, which tell LODs apart in a kit's GLB; '' where nothing is left. */
export function plainPieceName(name: string): string {
  return name
    .trim()
    .replace(/[^A-Za-z0-9 _-]+/g, '-')
    .slice(0, MAX_PIECE_NAME_LENGTH);
}

/** Gives names that nothing else has, whatever their case: 'crate', then 'crate 2'. Cost: the same for each, however many share one. */
export class FreeNames {
  private readonly taken: Set<string>;
  /** The number that a name is tried with next. */
  private readonly next = new Map<string, number>();

  constructor(taken: Iterable<string> = []) {
    this.taken = new Set(Array.from(taken, (name) => name.toLowerCase()));
  }

  /** The name itself where it is free; at most so long as a piece's name may be. */
  take(name: string): string {
    const plain = name.toLowerCase();
    for (let number = this.next.get(plain) ?? 1; ; number++) {
      const end = number === 1 ? '' : ` ${number}`;
      const free = name.slice(0, MAX_PIECE_NAME_LENGTH - end.length) + end;
      if (this.taken.has(free.toLowerCase())) continue;
      this.taken.add(free.toLowerCase());
      this.next.set(plain, number + 1);
      return free;
    }
  }
}
