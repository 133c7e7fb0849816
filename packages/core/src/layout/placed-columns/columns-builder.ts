import { turnQuaternion } from '../../geometry/turn-quaternion';
import { PLACEMENT_NUMBERS, threeAt } from '../../items/placement/columns';
import type { FieldValue } from '../../model/field';
import type { Piece } from '../../model/kit';
import { DistinctTriples } from './distinct-triples';
import type { ColumnForm, PlacedAt } from './placed-files';

/** Parts of a metre by which translations are counted; 0: they are not. */
const PER_METRE = { exact: 0, millimetre: 1000, centimetre: 100 } as const satisfies Record<ColumnForm, number>;
/** Where no point of a piece is farther from its own origin, placed, rotations and scales of float32 move it by less than 0.11 mm. */
const MAX_FLOAT32_REACH_METRES = 500;

/** Takes up the placements of one file, and tells then how they stand in it. */
export class ColumnsBuilder {
  readonly perMetre: number;
  readonly ids: string[] = [];
  /** Three numbers each, counted in parts of a metre where they are. */
  readonly translations: number[] = [];
  /** Turns that differ, and of each placement the number of its own. */
  readonly turns = new DistinctTriples();
  readonly scales = new DistinctTriples();
  readonly pieces = new Numbering();
  readonly groups = new Numbering();
  readonly values: { readonly placement: number; readonly values: Readonly<Record<string, FieldValue>> }[] = [];
  private reachMetres = 0;

  constructor(readonly form: ColumnForm) {
    this.perMetre = PER_METRE[form];
  }

  get count(): number {
    return this.ids.length;
  }

  /** None where there is no placement. */
  get files(): number {
    return this.count > 0 ? 1 : 0;
  }

  /** Whether real numbers are written as float32. */
  get isShort(): boolean {
    return this.perMetre > 0 && this.reachMetres <= MAX_FLOAT32_REACH_METRES;
  }

  /** Unit quaternions of the turns that differ, four numbers each. */
  rotations(): number[] {
    return Array.from({ length: this.turns.count }, (_one, n) => turnQuaternion(this.turns.at(n))).flat();
  }

  add({ of, i }: PlacedAt, piece: Pick<Piece, 'bounds'>): void {
    const { numbers } = of;
    const at = i * PLACEMENT_NUMBERS;
    for (let k = 0; k < 3; k++) this.translations.push(partsOf(numbers[at + k], this.perMetre));
    this.turns.add(numbers[at + 3], numbers[at + 4], numbers[at + 5]);
    this.scales.add(numbers[at + 6], numbers[at + 7], numbers[at + 8]);
    if (this.perMetre > 0)
      this.reachMetres = Math.max(this.reachMetres, reachOf(piece.bounds, threeAt(numbers, at + 6)));
    this.pieces.add(of.pieces[i]);
    const more = of.more.get(i);
    this.groups.add(more?.group ?? '');
    if (more?.values) this.values.push({ placement: this.count, values: more.values });
    this.ids.push(of.ids[i]);
  }
}

/** Gives each text the number in which it came first. */
export class Numbering {
  /** The numbers of those that came. */
  readonly numbers: number[] = [];
  private readonly known = new Map<string, number>();

  /** Those that came, each once. */
  get names(): readonly string[] {
    return [...this.known.keys()];
  }

  add(name: string): void {
    let number = this.known.get(name);
    if (number === undefined) {
      number = this.known.size;
      this.known.set(name, number);
    }
    this.numbers.push(number);
  }
}

/** A coordinate as a whole number of parts of a metre; as it is where there are no parts. A zero has no sign. */
function partsOf(metres: number, perMetre: number): number {
  return (perMetre > 0 ? Math.round(metres * perMetre) : metres) + 0;
}

/** How far the farthest point of a placed piece's bounds may be from the piece's origin, metres. */
function reachOf({ min, max }: Piece['bounds'], scale: readonly number[]): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const far = Math.max(Math.abs(min[k]), Math.abs(max[k])) * Math.abs(scale[k]);
    sum += far * far;
  }
  return Math.sqrt(sum);
}
