import { Injectable } from '@angular/core';

/** How many dialogs are open or about to be: what is typed is meant for them. */
@Injectable({ providedIn: 'root' })
export class OpenDialogs {
  count = 0;
}
