import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app/app';
import { appConfig } from './app/app.config';
import { fetchAhead } from './app/desk/fetch-ahead';
import { ALL_DESKS } from './app/desks';
// Most visits begin there: in one file with the frame it is shorter than in thirty of its own.
import './app/desks/sets/sets-page';

// The page that the address names comes while the frame is made.
void fetchAhead(ALL_DESKS, location.pathname);
bootstrapApplication(App, appConfig).catch((error: unknown) => {
  document.body.textContent = `Stravel could not start: ${String(error)}`;
});
