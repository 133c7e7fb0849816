import { statSync } from 'node:fs';
import { join } from 'node:path';
import type { NextFunction, Request, Response } from 'express';
import { HttpError } from '../http/problem';

/** Looks whether the data folder that was opened is still where it was. SQLite goes on writing into a file that nobody finds any more. */
export class FolderWatch {
  private readonly path: string;
  private readonly opened: string;

  constructor(private readonly dataFolder: string) {
    this.path = join(dataFolder, 'stravel.sqlite');
    this.opened = this.identity();
  }

  isThere(): boolean {
    return this.opened !== '' && this.identity() === this.opened;
  }

  /** Refuses what would change anything while the folder is gone; a page then keeps its edits and tries again. */
  readonly refuse = (request: Request, _response: Response, next: NextFunction): void => {
    if (request.method !== 'GET' && request.method !== 'HEAD' && !this.isThere()) {
      throw new HttpError(
        503,
        'DATA_FOLDER_GONE',
        `The data folder ${this.dataFolder} was removed or replaced: nothing can be saved. Put it back, or restart Stravel.`,
      );
    }
    next();
  };

  /** Device and number of the file, '' where there is none. */
  private identity(): string {
    try {
      const { dev, ino } = statSync(this.path);
      return `${dev} ${ino}`;
    } catch {
      return '';
    }
  }
}
