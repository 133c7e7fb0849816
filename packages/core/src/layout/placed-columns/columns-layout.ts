import type { ColumnsBuilder } from './columns-builder';

/** Numbers as they stand in a file of columns, little-endian, by their bytes; all but the floats are whole and not negative. */
export const COLUMN_TYPES = { float64: 8, float32: 4, uint32: 4, uint16: 2, uint8: 1 } as const;
export type ColumnType = keyof typeof COLUMN_TYPES;

/** A column begins where all types may begin. */
const ALIGN_BYTES = 8;
const UINT32_VALUES = 4294967296;
/** Beyond this whole numbers of parts are no longer exact. */
const MAX_PARTS = 1e15;
const AXES = ['x', 'y', 'z', 'w'] as const;

/** Numbers that stand in the file. */
export interface Run {
  readonly type: ColumnType;
  /** Where they begin, bytes. */
  readonly offset: number;
  readonly count: number;
}

/** One number in each placement, or so many as its name says. */
export interface Column extends Partial<Run> {
  readonly name: string;
  /** In all of them; nothing stands in the file then. */
  readonly value?: number;
  /** The numbers in the file are those that differ; which of them each placement has. */
  readonly index?: Run;
  /** They are counted: (from + n) / perMetre. */
  readonly perMetre?: number;
  readonly from?: number;
}

/** Numbers, and the place in the file that they are written to. */
export interface FilledRun extends Run {
  readonly numberAt: (i: number) => number;
}

/** Where the columns of a file stand in it. */
export class ColumnsLayout {
  readonly columns: Column[] = [];
  readonly runs: FilledRun[] = [];
  /** Where the ids begin, and how long they are. */
  readonly ids: Run;
  private end = 0;

  constructor(private readonly builder: ColumnsBuilder) {
    const { count, turns, scales, pieces, groups, ids } = builder;
    for (let k = 0; k < 3; k++) this.putTranslation(k);
    const isUngrouped = groups.names.length === 1 && groups.names[0] === '';
    this.putVectors('rotation', 4, builder.rotations(), turns.numbers);
    this.putVectors('scale', 3, scales.all, scales.numbers);
    this.putWhole('piece', pieces.numbers);
    if (!isUngrouped) this.putWhole('group', groups.numbers);
    let most = 0;
    let letters = 0;
    for (let i = 0; i < count; i++) {
      most = Math.max(most, ids[i].length);
      letters += ids[i].length;
    }
    this.columns.push({ name: 'idLength', ...this.put(wholeType(most + 1), count, (i) => ids[i].length) });
    this.ids = this.put('uint8', letters);
    this.columns.push({ name: 'ids', ...this.ids });
  }

  /** Length of the file. */
  get bytes(): number {
    return this.end;
  }

  /** One coordinate: counted from the least on where that is asked and they do not lie too far apart. */
  private putTranslation(axis: number): void {
    const { translations, count, perMetre } = this.builder;
    const at = (i: number): number => translations[i * 3 + axis];
    const name = `translation.${AXES[axis]}`;
    let least = Infinity;
    let most = -Infinity;
    for (let i = 0; i < count; i++) {
      least = Math.min(least, at(i));
      most = Math.max(most, at(i));
    }
    const isCounted = perMetre > 0 && most - least < UINT32_VALUES && Math.max(most, -least) < MAX_PARTS;
    if (least === most || !isCounted) {
      const part = perMetre > 0 ? perMetre : 1;
      this.putReal(name, 'float64', (i) => at(i) / part);
      return;
    }
    const run = this.put(wholeType(most - least + 1), count, (i) => at(i) - least);
    this.columns.push({ name, ...run, perMetre, from: least });
  }

  /** Vectors of so many numbers: those that differ and which each has, or number by number, whatever takes less. */
  private putVectors(name: string, size: number, distinct: readonly number[], numbers: readonly number[]): void {
    const type: ColumnType = this.builder.isShort ? 'float32' : 'float64';
    const kinds = distinct.length / size;
    const varying = AXES.slice(0, size).filter((_axis, k) => {
      for (let i = 1; i < kinds; i++) if (distinct[i * size + k] !== distinct[k]) return true;
      return false;
    });
    const short = wholeType(kinds);
    const indexed = distinct.length * COLUMN_TYPES[type] + numbers.length * COLUMN_TYPES[short];
    if (indexed < varying.length * numbers.length * COLUMN_TYPES[type]) {
      const run = this.put(type, distinct.length, (i) => distinct[i]);
      this.columns.push({ name, ...run, index: this.put(short, numbers.length, (i) => numbers[i]) });
    } else {
      for (let k = 0; k < size; k++) this.putReal(`${name}.${AXES[k]}`, type, (i) => distinct[numbers[i] * size + k]);
    }
  }

  private putWhole(name: string, numbers: readonly number[]): void {
    let most = 0;
    for (const number of numbers) most = Math.max(most, number);
    if (most === 0) this.columns.push({ name, value: 0 });
    else this.columns.push({ name, ...this.put(wholeType(most + 1), numbers.length, (i) => numbers[i]) });
  }

  private putReal(name: string, type: ColumnType, numberAt: (i: number) => number): void {
    const { count } = this.builder;
    const first = numberAt(0);
    for (let i = 1; i < count; i++) {
      if (numberAt(i) === first) continue;
      this.columns.push({ name, ...this.put(type, count, numberAt) });
      return;
    }
    this.columns.push({ name, value: first });
  }

  private put(type: ColumnType, count: number, numberAt?: (i: number) => number): Run {
    const offset = Math.ceil(this.end / ALIGN_BYTES) * ALIGN_BYTES;
    this.end = offset + count * COLUMN_TYPES[type];
    if (numberAt) this.runs.push({ type, offset, count, numberAt });
    return { type, offset, count };
  }
}

/** The least type that has so many values. */
function wholeType(values: number): ColumnType {
  return values <= 256 ? 'uint8' : values <= 65536 ? 'uint16' : 'uint32';
}
