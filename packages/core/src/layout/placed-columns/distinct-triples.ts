import type { Vector3 } from '../../model/vector';

/** Triples of numbers, each that differs kept once. */
export class DistinctTriples {
  /** Of each that came, the number of its like. */
  readonly numbers: number[] = [];
  private readonly values: number[] = [];
  private readonly known = new Map<number, Map<number, Map<number, number>>>();

  /** How many differ. */
  get count(): number {
    return this.values.length / 3;
  }

  at(number: number): Vector3 {
    return [this.values[number * 3], this.values[number * 3 + 1], this.values[number * 3 + 2]];
  }

  add(a: number, b: number, c: number): void {
    let second = this.known.get(a);
    if (!second) this.known.set(a, (second = new Map<number, Map<number, number>>()));
    let third = second.get(b);
    if (!third) second.set(b, (third = new Map<number, number>()));
    let number = third.get(c);
    if (number === undefined) {
      number = this.count;
      third.set(c, number);
      this.values.push(a, b, c);
    }
    this.numbers.push(number);
  }

  /** All that differ, three numbers each. */
  get all(): readonly number[] {
    return this.values;
  }
}
