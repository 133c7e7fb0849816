import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import {
  COMPRESSIONS,
  COUNT_NUMBER,
  MESH_FILES,
  PLACEMENT_FORMS,
  TARGET_RULES,
  countSetting,
  countedKinds,
  patternFault,
  ruleSetting,
  specOf,
  type Json,
  type RuleNumber,
  type Target,
  type TargetRuleField,
  type TargetRuleId,
  type WholeSetting,
} from '@stravel/core';
import { Help } from '../../../guide/help';
import { NumberField } from '../../../ui/number-field';
import { folderFault } from '../target-edits';

const MAX_NAME_LENGTH = 200;

/** One line of the card: a rule or a limit of a kind. */
export interface TargetLine {
  /** Where it is kept in the record: 'rules.tiling', 'counts.block'. */
  readonly path: string;
  readonly name: string;
  readonly meaning: string;
  readonly min: RuleNumber | undefined;
  readonly max: RuleNumber | undefined;
  readonly text: string | undefined;
  /** What is wrong with a text that was typed, null when nothing; absent: any will do. */
  readonly textFault?: (text: string) => string | null;
  readonly setting: WholeSetting;
}

/** What changes in a target, in words and by path. */
export interface TargetFields {
  readonly label: string;
  readonly fields: Readonly<Record<string, Json>>;
}

/** What a text of a rule must be, by the rule; the others take any. */
const TEXT_FAULTS: Partial<Record<TargetRuleId, (text: string) => string | null>> = { pieceNames: patternFault };

/** A target: how its files are written, and what it asks of a pack. */
@Component({
  selector: 'sv-target-card',
  imports: [Help, NgTemplateOutlet, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './target-card.html',
  styleUrl: './target-card.scss',
})
export class TargetCard {
  readonly target = input.required<Target>();
  readonly targets = input.required<readonly Target[]>();
  /** Whether it is one of the collection's own; the plain one becomes that when it is changed. */
  readonly isOwn = input.required<boolean>();
  readonly changed = output<TargetFields>();
  readonly copied = output();
  readonly deleted = output();

  /** What is wrong with what was typed, by the field; what is typed stays. */
  private readonly faults = linkedSignal<string, ReadonlyMap<string, string>>({
    source: () => this.target().id,
    computation: () => new Map(),
  });
  readonly fault = computed(() => [...this.faults().values()].at(0) ?? '');
  readonly rules = computed((): TargetLine[] =>
    (Object.keys(TARGET_RULES) as TargetRuleId[]).map((id) => {
      const field: TargetRuleField = TARGET_RULES[id];
      return {
        path: `rules.${id}`,
        name: field.name,
        meaning: field.meaning,
        min: field.min,
        max: field.max,
        text: field.text?.name,
        textFault: TEXT_FAULTS[id],
        setting: ruleSetting(this.target(), id),
      };
    }),
  );
  readonly counts = computed((): TargetLine[] =>
    countedKinds().map((kind) => {
      const { many } = specOf(kind).words;
      return {
        path: `counts.${kind}`,
        name: many[0].toUpperCase() + many.slice(1),
        meaning: 'Max in a level.',
        min: undefined,
        max: COUNT_NUMBER,
        text: undefined,
        setting: countSetting(this.target(), kind),
      };
    }),
  );
  readonly placements = computed(() => this.target().placements ?? 'json');
  readonly limited = computed(() => this.counts().filter(({ setting }) => setting.isOn).length);

  has(field: string): boolean {
    return this.faults().has(field);
  }

  rename(typed: string): void {
    const name = typed.trim();
    const taken = this.targets().some((one) => one.id !== this.target().id && one.name === name);
    this.take('name', name, this.target().name, () =>
      name === ''
        ? 'A target needs a name.'
        : name.length > MAX_NAME_LENGTH
          ? `A name has at most ${MAX_NAME_LENGTH} characters; this one has ${name.length}.`
          : taken
            ? `There is a target called ${name}.`
            : '',
    );
  }

  setFolder(typed: string): void {
    const folder = typed.trim();
    this.take('folder', folder, this.target().folder, () => folderFault(this.targets(), this.target().id, folder));
  }

  setFiles(meshFiles: string): void {
    const chosen = MESH_FILES.find((one) => one === meshFiles);
    if (chosen) this.set('files of meshes', { meshFiles: chosen });
  }

  setCompression(compression: string): void {
    const chosen = COMPRESSIONS.find((one) => one === compression);
    if (chosen) this.set('compression', { compression: chosen });
  }

  setPlacements(placements: string): void {
    const chosen = PLACEMENT_FORMS.find((one) => one === placements);
    if (chosen) this.set('placements', { placements: chosen });
  }

  setPlacementsJson(withPlacementsJson: boolean): void {
    this.set('placements', { withPlacementsJson });
  }

  setPurposes(withAllPurposes: boolean): void {
    this.set('test and tool levels', { withAllPurposes });
  }

  switch(line: TargetLine, isOn: boolean): void {
    this.setLine(line, { isOn });
  }

  setMin(line: TargetLine, min: number): void {
    if (this.ranges(line, min <= line.setting.max)) this.setLine(line, { min });
  }

  setMax(line: TargetLine, max: number): void {
    if (this.ranges(line, max >= line.setting.min)) this.setLine(line, { max });
  }

  setText(line: TargetLine, typed: string): void {
    const text = typed.trim();
    const fault = (text !== '' && line.textFault?.(text)) || '';
    this.mark(line.path, fault === '' ? '' : `${line.name}: the pattern cannot be read: ${fault}.`);
    if (fault === '' && text !== line.setting.text) this.setLine(line, { text });
  }

  private ranges(line: TargetLine, isRange: boolean): boolean {
    this.mark(line.path, isRange ? '' : `${line.name}: the min must not be above the max.`);
    return isRange;
  }

  private setLine({ path, name, min, max, text, setting }: TargetLine, change: Partial<WholeSetting>): void {
    const whole = { ...setting, ...change };
    this.set(name.toLowerCase(), {
      [path]: {
        isOn: whole.isOn,
        ...(min ? { min: whole.min } : {}),
        ...(max ? { max: whole.max } : {}),
        ...(text === undefined ? {} : { text: whole.text }),
      },
    });
  }

  private take(field: string, value: string, before: string, faultOf: () => string): void {
    const fault = value === before ? '' : faultOf();
    this.mark(field, fault);
    if (fault === '' && value !== before) this.set(field, { [field]: value });
  }

  private mark(field: string, fault: string): void {
    const faults = new Map(this.faults());
    if (fault === '') faults.delete(field);
    else faults.set(field, fault);
    this.faults.set(faults);
  }

  private set(what: string, fields: TargetFields['fields']): void {
    this.changed.emit({ label: `${what} of ${this.target().name}`, fields });
  }
}
