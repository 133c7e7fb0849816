import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { CarriedValue, Field, Gain, Level, LevelOrder, UnlockRule } from '@stravel/core';
import { Help } from '../../../guide/help';

/** How one level opens, what it gives and what it resets. */
@Component({
  selector: 'sv-order-card',
  imports: [Help],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './order-card.html',
  styleUrl: './order-card.scss',
})
export class OrderCard {
  readonly level = input.required<Level>();
  readonly order = input.required<LevelOrder>();
  /** Play levels in order. */
  readonly levels = input.required<readonly Level[]>();
  readonly values = input.required<readonly CarriedValue[]>();
  /** Number fields of the levels. */
  readonly fields = input.required<readonly Field[]>();
  readonly rulesChanged = output<readonly UnlockRule[]>();
  readonly gainsChanged = output<readonly Gain[]>();
  readonly resetsChanged = output<readonly string[]>();

  readonly kinds: readonly { readonly kind: UnlockRule['kind']; readonly words: string }[] = [
    { kind: 'start', words: 'from the start' },
    { kind: 'after', words: 'after levels' },
    { kind: 'value', words: 'at a carried value' },
    { kind: 'code', words: 'by its code' },
  ];
  readonly names = computed(() => new Map(this.levels().map(({ id, name }) => [id, name])));

  addRule(): void {
    this.rulesChanged.emit([...this.order().rules, this.ruleOf('start')]);
  }

  setKind(at: number, kind: UnlockRule['kind']): void {
    this.setRule(at, this.ruleOf(kind));
  }

  setRule(at: number, rule: UnlockRule): void {
    this.rulesChanged.emit(this.order().rules.map((one, i) => (i === at ? rule : one)));
  }

  dropRule(at: number): void {
    this.rulesChanged.emit(this.order().rules.filter((_rule, i) => i !== at));
  }

  addSource(at: number, rule: Extract<UnlockRule, { kind: 'after' }>, id: string): void {
    if (id !== '' && !rule.levels.includes(id)) this.setRule(at, { ...rule, levels: [...rule.levels, id] });
  }

  dropSource(at: number, rule: Extract<UnlockRule, { kind: 'after' }>, id: string): void {
    const levels = rule.levels.filter((one) => one !== id);
    if (levels.length === 0) this.dropRule(at);
    else this.setRule(at, { ...rule, levels });
  }

  setLeast(at: number, rule: Extract<UnlockRule, { kind: 'value' }>, text: string): void {
    const least = numberIn(text);
    if (least !== undefined) this.setRule(at, { ...rule, least });
  }

  addGain(): void {
    const free = this.values().find(({ id }) => !this.order().gains.some(({ value }) => value === id));
    if (free) this.gainsChanged.emit([...this.order().gains, { value: free.id, least: 0, most: 1 }]);
  }

  setGain(at: number, change: Partial<Gain>): void {
    this.gainsChanged.emit(this.order().gains.map((gain, i) => (i === at ? { ...gain, ...change } : gain)));
  }

  /** Keeps least below most: the one that was not typed gives way. */
  setAmount(at: number, part: 'least' | 'most', text: string): void {
    const amount = numberIn(text);
    const gain = this.order().gains[at];
    if (amount === undefined) return;
    this.setGain(
      at,
      part === 'least'
        ? { least: amount, most: Math.max(amount, gain.most) }
        : { most: amount, least: Math.min(amount, gain.least) },
    );
  }

  dropGain(at: number): void {
    this.gainsChanged.emit(this.order().gains.filter((_gain, i) => i !== at));
  }

  toggleReset(id: string): void {
    const { resets } = this.order();
    this.resetsChanged.emit(resets.includes(id) ? resets.filter((one) => one !== id) : [...resets, id]);
  }

  private ruleOf(kind: UnlockRule['kind']): UnlockRule {
    if (kind === 'after') {
      const at = this.levels().findIndex(({ id }) => id === this.level().id);
      const before = this.levels().at(at > 0 ? at - 1 : 1) ?? this.level();
      return { kind, levels: [before.id], need: 'all' };
    }
    if (kind === 'value') {
      const value = this.values().at(0);
      return value ? { kind, value: value.id, least: value.start + 1 } : { kind: 'start' };
    }
    return { kind };
  }
}

/** A number that was typed; undefined when it is none, and then what stands stays. */
function numberIn(text: string): number | undefined {
  const number = Number(text.replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(number) ? number + 0 : undefined;
}
