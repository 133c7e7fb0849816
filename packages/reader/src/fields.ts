import { PackError } from './pack-error';

/** A table of JSON, as it came. */
export type JsonTable = Readonly<Record<string, unknown>>;

/** A table of one of a pack's files, whose fields are checked as they are read. */
export class Fields {
  private constructor(
    readonly json: JsonTable,
    readonly file: string,
    private readonly path: string,
  ) {}

  /** @throws PackError 'FIELD' when it is no table */
  static of(value: unknown, file: string, path = ''): Fields {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      throw new PackError('FIELD', file, path, 'must be a table');
    return new Fields(value as JsonTable, file, path);
  }

  has(key: string): boolean {
    return this.json[key] !== undefined;
  }

  text(key: string): string {
    const value = this.json[key];
    return typeof value === 'string' ? value : this.fail(key, 'must be a text');
  }

  textOrNull(key: string): string | null {
    return this.json[key] === null ? null : this.text(key);
  }

  number(key: string): number {
    const value = this.json[key];
    return typeof value === 'number' ? value : this.fail(key, 'must be a number');
  }

  flag(key: string): boolean {
    const value = this.json[key];
    return typeof value === 'boolean' ? value : this.fail(key, 'must be true or false');
  }

  texts(key: string): string[] {
    return this.list(key).map((value, i) =>
      typeof value === 'string' ? value : this.fail(`${key}.${i}`, 'must be a text'),
    );
  }

  /** @param count how many there must be; absent: any number */
  numbers(key: string, count?: number): number[] {
    const all = this.list(key);
    if (count !== undefined && all.length !== count) this.fail(key, `must be ${count} numbers`);
    return all.map((value, i) => (typeof value === 'number' ? value : this.fail(`${key}.${i}`, 'must be a number')));
  }

  list(key: string): readonly unknown[] {
    const value = this.json[key];
    return Array.isArray(value) ? (value as unknown[]) : this.fail(key, 'must be a list');
  }

  table(key: string): Fields {
    return Fields.of(this.json[key], this.file, this.where(key));
  }

  /** The tables of a list; none where it is left out. */
  tables(key: string): Fields[] {
    if (!this.has(key)) return [];
    return this.list(key).map((value, i) => Fields.of(value, this.file, `${this.where(key)}.${i}`));
  }

  fail(key: string, rule: string): never {
    throw new PackError('FIELD', this.file, this.where(key), rule);
  }

  private where(key: string): string {
    return this.path === '' ? key : `${this.path}.${key}`;
  }
}
