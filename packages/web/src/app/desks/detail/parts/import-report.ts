import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { SEVERITY_RANKS, type Kit } from '@stravel/core';
import { bytesText, countText } from '../../../ui/amount';
import { NumberField } from '../../../ui/number-field';
import type { WaitingPieces } from '../../../bakes/kit-work';
import { Help } from '../../../guide/help';

/** What was read of dropped files, and where it shall go. */
@Component({
  selector: 'sv-import-report',
  imports: [Help, CountedPipe, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './import-report.html',
  styleUrl: './import-report.scss',
})
export class ImportReportPanel {
  readonly waiting = input.required<WaitingPieces>();
  readonly kits = input.required<readonly Kit[]>();
  /** Names that the chosen kit has already. */
  readonly taken = input.required<(kit: string) => ReadonlySet<string>>();
  readonly chosenKit = input('');
  readonly takenIn = output<{ kit: string | null; name: string }>();
  readonly dropped = output<void>();
  readonly readAgain = output<{ unitMetres: number; isZUp: boolean }>();
  readonly bytes = bytesText;
  readonly count = countText;
  private readonly picked = signal<string | undefined>(undefined);
  readonly newName = signal('');
  readonly kit = computed(() => this.picked() ?? this.chosenKit());
  readonly replaced = computed(() => {
    const names = this.kit() === '' ? new Set<string>() : this.taken()(this.kit());
    return this.waiting()
      .read.pieces.filter(({ name }) => names.has(name))
      .map(({ name }) => name);
  });
  readonly faults = computed(() => {
    return [...this.waiting().read.report.faults].sort(
      (a, b) => SEVERITY_RANKS[a.severity] - SEVERITY_RANKS[b.severity],
    );
  });

  pick(kit: string): void {
    this.picked.set(kit);
  }

  take(): void {
    const kit = this.kit();
    this.takenIn.emit(kit === '' ? { kit: null, name: this.newName().trim() || 'New kit' } : { kit, name: '' });
  }

  size({ bounds }: { readonly bounds: { readonly min: readonly number[]; readonly max: readonly number[] } }): string {
    return [0, 1, 2].map((k) => Number((bounds.max[k] - bounds.min[k]).toPrecision(3))).join(' × ');
  }
}
