import { Injectable, inject } from '@angular/core';
import { Dialogs } from './dialogs';
import { CoreError } from '@stravel/core';
import type { Answers, AskData } from './ask-dialog';

/** Opens small dialogs and gives what was answered. */
@Injectable({ providedIn: 'root' })
export class Ask {
  private readonly dialogs = inject(Dialogs);

  /** @returns undefined when the person left it */
  for(data: AskData): Promise<Answers | undefined> {
    return this.dialogs.bring(() => import('./ask-dialog').then(({ AskDialog }) => AskDialog), data);
  }

  /**
   * Asks until the answers lead to a result: what the computation refuses is said in the dialog, with the answers kept.
   * @returns what `make` made; undefined when the person left it
   */
  async until<T>(data: Omit<AskData, 'fault'>, make: (answers: Answers) => T): Promise<T | undefined> {
    let made: T | undefined;
    const fault = (answers: Answers): string => {
      try {
        made = make(answers);
        return '';
      } catch (error) {
        if (!(error instanceof CoreError)) throw error;
        return error.message;
      }
    };
    return (await this.for({ ...data, fault })) ? made : undefined;
  }
}

/** What is wrong with a name that was asked for; '' when nothing. */
export function nameFault(name: string | number): string {
  return String(name).trim() === '' ? 'Give it a name.' : '';
}
