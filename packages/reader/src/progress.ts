import type { Fields } from './fields';
import type { Pack } from './pack';
import { PackError } from './pack-error';

/** Where a player stands; plain data, to be saved with the game. */
export interface PlayState {
  /** Ids of levels. */
  readonly open: readonly string[];
  readonly played: readonly string[];
  /** By id of the carried value. */
  readonly values: Readonly<Record<string, number>>;
}

interface Level {
  readonly id: string;
  readonly key: string;
  readonly code: string;
  readonly rules: readonly Fields[];
  readonly resets: readonly string[];
}

interface CarriedValue {
  readonly id: string;
  readonly start: number;
  /** Whether a level gives it the first time alone. */
  readonly isOnce: boolean;
}

/** Which levels are open, and why. */
export class Progress {
  private readonly open = new Set<string>();
  private readonly played = new Set<string>();
  private readonly amounts = new Map<string, number>();

  constructor(
    private readonly levels: readonly Level[],
    private readonly values: readonly CarriedValue[],
  ) {
    for (const { id, start } of values) this.amounts.set(id, start);
    this.unlock();
  }

  /** Keys of the open levels, in the order of the game's file. */
  unlocked(): string[] {
    return this.levels.filter(({ id }) => this.open.has(id)).map(({ key }) => key);
  }

  /** @throws PackError 'UNKNOWN' */
  isOpen(key: string): boolean {
    return this.open.has(this.levelOf(key).id);
  }

  /** What a carried value stands at. @throws PackError 'UNKNOWN' */
  value(id: string): number {
    return this.amounts.get(id) ?? unknown('carriedValues', id);
  }

  /**
   * Plays a level: its resets, then what was collected, then what unlocks by that.
   * @param collected by id of the carried value; one that counts once is taken the first time alone
   * @throws PackError 'UNKNOWN', 'LOCKED'; then all is as it was
   */
  play(key: string, collected: Readonly<Record<string, number>> = {}): void {
    const level = this.levelOf(key);
    if (!this.open.has(level.id)) throw new PackError('LOCKED', '', '', `${key} is not open`);
    for (const id of Object.keys(collected)) this.value(id);
    for (const { id, start, isOnce } of this.values) {
      const before = level.resets.includes(id) ? start : this.value(id);
      const amount = isOnce && this.played.has(level.id) ? 0 : (collected[id] ?? 0);
      this.amounts.set(id, before + amount);
    }
    this.played.add(level.id);
    this.unlock();
  }

  /** Opens the levels that have a code. @returns whether there is any */
  typeCode(code: string): boolean {
    const meant = this.levels.filter(
      (level) => level.code === code && level.rules.some((rule) => rule.text('kind') === 'code'),
    );
    for (const { id } of meant) this.open.add(id);
    return meant.length > 0;
  }

  state(): PlayState {
    return {
      open: [...this.open],
      played: [...this.played],
      values: Object.fromEntries(this.amounts),
    };
  }

  /** Goes on from a saved state. What the pack has no longer is left out; what it opens besides is opened. */
  restore({ open, played, values }: PlayState): void {
    const known = new Set(this.levels.map(({ id }) => id));
    this.open.clear();
    this.played.clear();
    for (const id of open) if (known.has(id)) this.open.add(id);
    for (const id of played) if (known.has(id)) this.played.add(id);
    for (const { id, start } of this.values) this.amounts.set(id, values[id] ?? start);
    this.unlock();
  }

  private unlock(): void {
    for (const { id, rules } of this.levels)
      if (!this.open.has(id) && rules.some((rule) => this.holds(rule))) this.open.add(id);
  }

  private holds(rule: Fields): boolean {
    switch (rule.text('kind')) {
      case 'start':
        return true;
      case 'after': {
        const levels = rule.texts('levels');
        const has = (id: string): boolean => this.played.has(id);
        return levels.length > 0 && (rule.text('need') === 'all' ? levels.every(has) : levels.some(has));
      }
      case 'value':
        return this.value(rule.text('value')) >= rule.number('least');
      default:
        // A code is typed; a kind of a later version does not hold by itself either.
        return false;
    }
  }

  private levelOf(key: string): Level {
    return this.levels.find((level) => level.key === key) ?? unknown('levels', key);
  }
}

/** The order of play of a pack, at its start. @throws PackError */
export async function createProgress(pack: Pack): Promise<Progress> {
  const game = await pack.game();
  return new Progress(
    game
      .tables('levels')
      .filter((level) => level.text('purpose') === 'play')
      .map((level) => ({
        id: level.text('id'),
        key: level.text('key'),
        code: level.text('code'),
        rules: level.tables('rules'),
        resets: level.texts('resets'),
      })),
    game.tables('carriedValues').map((value) => ({
      id: value.text('id'),
      start: value.number('start'),
      isOnce: value.text('counts') === 'once',
    })),
  );
}

function unknown(list: string, name: string): never {
  throw new PackError('UNKNOWN', 'game.json', list, `has no ${name}`);
}
