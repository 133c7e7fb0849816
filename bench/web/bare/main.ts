import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { bootstrapApplication } from '@angular/platform-browser';

/** As little of Angular as a page can be. */
@Component({
  selector: 'app-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p class="painted">{{ word() }}</p>`,
})
class Bare {
  readonly word = signal('painted');
}

bootstrapApplication(Bare, { providers: [provideZonelessChangeDetection()] }).catch((error: unknown) => {
  document.body.textContent = String(error);
});
