import { Injectable, inject, signal } from '@angular/core';
import { errorText, packQuery, type Finding, type PackChoice } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';

/** What the target has against the collection, as the server last found it. */
@Injectable({ providedIn: 'root' })
export class PackCheck {
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly session = inject(Session);

  readonly findings = signal<readonly Finding[]>([]);
  /** When it was last checked; undefined when never. */
  readonly checkedAt = signal<Date | undefined>(undefined);
  readonly isChecking = signal(false);
  readonly failure = signal('');
  private next: PackChoice | undefined;

  /** Checks what stands now, once all edits are saved. */
  async check(choice: PackChoice): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    // What was chosen while a check runs is checked after it.
    this.next = choice;
    if (this.isChecking()) return;
    this.isChecking.set(true);
    this.failure.set('');
    try {
      while (this.next) {
        const query = packQuery(this.next);
        this.next = undefined;
        await this.edits.settled();
        const { findings } = await this.api.json<{ findings: Finding[] }>(
          `/api/collections/${collection.id}/pack/check?${query}`,
        );
        this.findings.set(findings);
        this.checkedAt.set(new Date());
      }
    } catch (error) {
      this.failure.set(errorText(error));
    } finally {
      this.isChecking.set(false);
    }
  }
}
