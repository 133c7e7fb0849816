import { Injectable } from '@angular/core';

/** One field of the dialog. */
interface Settled {
  /** Keeps what is typed; false when it is no number that the field takes, which then has the focus. */
  settle(): boolean;
}

/** The number fields of one dialog, which provides this: it is not left with a number that was typed wrong and would be lost. */
@Injectable()
export class NumberFields {
  private readonly fields = new Set<Settled>();

  /** @returns takes the field out again */
  add(field: Settled): () => void {
    this.fields.add(field);
    return () => this.fields.delete(field);
  }

  /** Keeps what is typed in each of them; false when one says what is wrong with it. */
  settle(): boolean {
    return [...this.fields].every((field) => field.settle());
  }
}
