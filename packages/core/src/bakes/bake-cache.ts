import type { BakeKind, NeededBake } from './bake-spec';

interface Kept {
  readonly result: NeededBake['result'];
  readonly bytes: number;
}

/** Bakes by kind and key, up to so many bytes; those that were not used for longest go first. */
export class BakeCache {
  private readonly kept = new Map<string, Kept>();
  private bytes = 0;

  constructor(private readonly mostBytes: number) {}

  get<B extends BakeKind>(kind: B, key: string): NeededBake<B>['result'] | undefined {
    const name = `${kind} ${key}`;
    const one = this.kept.get(name);
    if (!one) return undefined;
    this.kept.delete(name);
    this.kept.set(name, one);
    return one.result as NeededBake<B>['result'];
  }

  /** The bake under a key, made where it is not held. */
  brought<B extends BakeKind>(kind: B, key: string, make: () => NeededBake<B>['result']): NeededBake<B>['result'] {
    const held = this.get(kind, key);
    if (held) return held;
    const made = make();
    this.put(kind, key, made);
    return made;
  }

  put<B extends BakeKind>(kind: B, key: string, result: NeededBake<B>['result']): void {
    const name = `${kind} ${key}`;
    this.drop(name);
    const bytes = roughBytes(result);
    this.kept.set(name, { result, bytes });
    this.bytes += bytes;
    for (const oldest of this.kept.keys()) {
      if (this.bytes <= this.mostBytes || oldest === name) break;
      this.drop(oldest);
    }
  }

  private drop(name: string): void {
    this.bytes -= this.kept.get(name)?.bytes ?? 0;
    this.kept.delete(name);
  }
}

/** What a value takes in memory, about. */
function roughBytes(value: unknown): number {
  if (typeof value === 'string') return 16 + 2 * value.length;
  if (typeof value !== 'object' || value === null) return 8;
  if (ArrayBuffer.isView(value)) return 64 + value.byteLength;
  let bytes = 32;
  for (const member of Array.isArray(value) ? value : Object.values(value)) bytes += 8 + roughBytes(member);
  return bytes;
}
