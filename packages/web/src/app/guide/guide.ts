import { Injectable, signal } from '@angular/core';

/** Whether the guide is open beside the work, and where. */
@Injectable({ providedIn: 'root' })
export class Guide {
  private readonly topic = signal<string | undefined>(undefined);
  /** Id of the section that is read; undefined while the guide is closed. */
  readonly shown = this.topic.asReadonly();

  /** @param about a page, or a page and a heading: 'layout/links' */
  open(about: string): void {
    this.topic.set(about);
  }

  close(): void {
    this.topic.set(undefined);
  }
}
