import type { Provider } from '@angular/core';
import { levelView, type LevelViewStart } from '../plate/level-view';
import { Sheets } from './sheets';

/** What the page of a desk with a level provides: how the level is looked at, its frame, its sheets. */
export const levelDesk = (start: LevelViewStart): Provider[] => [...levelView(start), Sheets];
