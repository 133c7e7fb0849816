import type { Fields, JsonTable } from './fields';
import { PackError } from './pack-error';
import type { Piece } from './pieces';

/** Placements of a chunk in columns. */
export interface Placements {
  readonly count: number;
  readonly ids: readonly string[];
  /** The pieces that are placed; `piece` has their numbers. */
  readonly pieces: readonly Piece[];
  readonly piece: Uint32Array;
  /** Three numbers each, metres. */
  readonly translations: Float64Array;
  /** Four each: unit quaternions x y z w. */
  readonly rotations: Float64Array;
  /** Three each; negative where it is mirrored. */
  readonly scales: Float64Array;
  /** Id of each one's group; undefined at the top. */
  readonly groups: readonly (string | undefined)[];
  /** Values of their own, by number of the placement. */
  readonly values: ReadonlyMap<number, JsonTable>;
}

/** Reads a piece by its id. @throws PackError 'UNKNOWN' */
export type PieceOf = (id: string) => Piece;

const SIZES = { float64: 8, float32: 4, uint32: 4, uint16: 2, uint8: 1 } as const;
type NumberType = keyof typeof SIZES;

/** Placements that a level's file lists as JSON. @throws PackError */
export function listedPlacements(listed: readonly Fields[], pieceOf: PieceOf): Placements {
  const count = listed.length;
  const numbers = new Map<string, number>();
  const out = {
    count,
    ids: listed.map((one) => one.text('id')),
    pieces: [] as Piece[],
    piece: new Uint32Array(count),
    translations: new Float64Array(count * 3),
    rotations: new Float64Array(count * 4),
    scales: new Float64Array(count * 3),
    groups: listed.map((one) => (one.has('group') ? one.text('group') : undefined)),
    values: new Map<number, JsonTable>(),
  };
  listed.forEach((one, i) => {
    const id = one.text('piece');
    let number = numbers.get(id);
    if (number === undefined) {
      number = out.pieces.push(pieceOf(id)) - 1;
      numbers.set(id, number);
    }
    out.piece[i] = number;
    out.translations.set(one.numbers('translation', 3), i * 3);
    out.rotations.set(one.numbers('rotation', 4), i * 4);
    out.scales.set(one.numbers('scale', 3), i * 3);
    if (one.has('values')) out.values.set(i, one.table('values').json);
  });
  return out;
}

/** Gives a number of a column. @param i number of the placement */
type NumberAt = (i: number) => number;

/** Placements that stand in a file of columns. @param told what the level's file tells of it @throws PackError */
export function columnPlacements(told: Fields, bytes: Uint8Array, pieceOf: PieceOf): Placements {
  const count = told.number('placements');
  const columns = new Columns(told, bytes);
  const piece = columns.needed('piece');
  const group = columns.read('group');
  const names = told.has('groups') ? told.texts('groups') : [];
  return {
    count,
    ids: columns.ids(),
    pieces: told.texts('pieces').map(pieceOf),
    piece: Uint32Array.from({ length: count }, (_one, i) => piece(i)),
    translations: columns.vectors('translation', 3),
    rotations: columns.vectors('rotation', 4),
    scales: columns.vectors('scale', 3),
    groups: Array.from({ length: count }, (_one, i) => (group ? names[group(i)] || undefined : undefined)),
    values: new Map(told.tables('values').map((one) => [one.number('placement'), one.table('values').json])),
  };
}

/** The columns of a file, by the table that tells of them. */
class Columns {
  private readonly table: ReadonlyMap<string, Fields>;
  private readonly view: DataView;
  private readonly count: number;

  constructor(
    private readonly told: Fields,
    private readonly bytes: Uint8Array,
  ) {
    this.table = new Map(told.tables('table').map((column) => [column.text('name'), column]));
    this.count = told.number('placements');
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }

  /** Undefined where there is no such column. @throws PackError 'COLUMNS', 'FIELD' */
  read(name: string): NumberAt | undefined {
    const column = this.table.get(name);
    if (!column) return undefined;
    if (column.has('value')) {
      const value = column.number('value');
      return () => value;
    }
    const numbers = this.run(column, name, this.count);
    if (!column.has('perMetre')) return numbers;
    const [from, perMetre] = [column.number('from'), column.number('perMetre')];
    return (i) => (from + numbers(i)) / perMetre;
  }

  needed(name: string): NumberAt {
    return this.read(name) ?? this.missing(name);
  }

  /** So many numbers of each placement: those that differ and an index, or a column for each number. */
  vectors(name: string, size: number): Float64Array {
    const { count } = this;
    const out = new Float64Array(count * size);
    const column = this.table.get(name);
    if (column) {
      const distinct = this.run(column, name, size);
      const index = this.run(column.table('index'), `${name}.index`, count);
      const most = column.number('count') - size;
      for (let i = 0; i < count; i++) {
        const from = index(i) * size;
        if (from > most) this.fault(name, 'has an index that leads out of it');
        for (let k = 0; k < size; k++) out[i * size + k] = distinct(from + k);
      }
      return out;
    }
    for (let k = 0; k < size; k++) {
      const numbers = this.needed(`${name}.${'xyzw'[k]}`);
      for (let i = 0; i < count; i++) out[i * size + k] = numbers(i);
    }
    return out;
  }

  /** Texts that stand one after the other. */
  ids(): string[] {
    const length = this.needed('idLength');
    const column = this.table.get('ids') ?? this.missing('ids');
    this.run(column, 'ids', 0);
    const offset = column.number('offset');
    // Ids are ASCII: their bytes are their letters.
    const text = new TextDecoder().decode(this.bytes.subarray(offset, offset + column.number('count')));
    let end = 0;
    return Array.from({ length: this.count }, (_one, i) => text.slice(end, (end += length(i))));
  }

  /** @param needed how many numbers it must have at least */
  private run(run: Fields, name: string, needed: number): NumberAt {
    const type = run.text('type');
    if (!isNumberType(type)) run.fail('type', `must be one of ${Object.keys(SIZES).join(', ')}`);
    const [offset, count] = [run.number('offset'), run.number('count')];
    if (offset + count * SIZES[type] > this.bytes.length) this.fault(name, 'ends beyond the file');
    if (count < needed) this.fault(name, `has ${count} numbers and must have ${needed}`);
    const { view } = this;
    switch (type) {
      case 'float64':
        return (i) => view.getFloat64(offset + i * 8, true);
      case 'float32':
        return (i) => view.getFloat32(offset + i * 4, true);
      case 'uint32':
        return (i) => view.getUint32(offset + i * 4, true);
      case 'uint16':
        return (i) => view.getUint16(offset + i * 2, true);
      case 'uint8':
        return (i) => view.getUint8(offset + i);
    }
  }

  private fault(name: string, rule: string): never {
    throw new PackError('COLUMNS', this.told.text('file'), '', `its column ${name} ${rule}`);
  }

  private missing(name: string): never {
    return this.told.fail('table', `must have a column ${name}`);
  }
}

function isNumberType(type: string): type is NumberType {
  return Object.hasOwn(SIZES, type);
}
