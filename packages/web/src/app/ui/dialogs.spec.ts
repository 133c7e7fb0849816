import { ChangeDetectionStrategy, Component, Injectable, InjectionToken, inject } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { Dialog } from './dialog';
import { Dialogs } from './dialogs';
import { Notices } from './notices';
import { OpenDialogs } from './open-dialogs';

/** Something that a page alone has. */
const OWN = new InjectionToken<string>('own');

@Injectable()
class Service {
  readonly dialogs = inject(Dialogs);
}

@Component({ selector: 'sv-asked', changeDetection: ChangeDetectionStrategy.OnPush, template: '{{ own }}, {{ data }}' })
class Asked extends Dialog<number, string> {
  static readonly size = { width: '300px' };
  readonly own = inject(OWN, { optional: true }) ?? 'nobody’s';
}

@Component({
  selector: 'sv-page',
  providers: [Dialogs, Service, { provide: OWN, useValue: 'the page’s' }],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
})
class Page {
  readonly service = inject(Service);
}

describe('dialogs', () => {
  const opened = async (dialogs: Dialogs) => {
    const answer = dialogs.open(Asked, 7);
    await new Promise((resolve) => setTimeout(resolve));
    const shown = TestBed.inject(MatDialog).openDialogs[0];
    TestBed.tick();
    return { answer, shown, text: document.querySelector('sv-asked')?.textContent };
  };
  afterEach(() => TestBed.inject(MatDialog).closeAll());

  it('have the services of the page that opens them, and give what was answered', async () => {
    const { service } = TestBed.createComponent(Page).componentInstance;
    const { answer, shown, text } = await opened(service.dialogs);
    expect(text).toBe('the page’s, 7');
    shown.close('yes');
    expect(await answer).toBe('yes');
  });

  it('opened by what belongs to no page do without, and give nothing when they are left', async () => {
    const { answer, shown, text } = await opened(TestBed.inject(Dialogs));
    expect(text).toBe('nobody’s, 7');
    shown.close();
    expect(await answer).toBeUndefined();
  });

  it('asked for by a page that was left before their code came are not opened', async () => {
    const page = TestBed.createComponent(Page);
    const answer = page.componentInstance.service.dialogs.open(Asked, 7);
    page.destroy();
    expect(await answer).toBeUndefined();
    expect(TestBed.inject(MatDialog).openDialogs).toHaveLength(0);
  });

  it('count from the moment they are asked for, so that what is typed then is for them', async () => {
    const dialogs = TestBed.inject(Dialogs);
    const answer = dialogs.open(Asked, 7);
    expect(TestBed.inject(OpenDialogs).count).toBe(1);
    await new Promise((resolve) => setTimeout(resolve));
    TestBed.inject(MatDialog).closeAll();
    await answer;
    expect(TestBed.inject(OpenDialogs).count).toBe(0);
  });

  it('whose code is loaded when they are asked for open then, and what cannot be loaded is said', async () => {
    const dialogs = TestBed.inject(Dialogs);
    const answer = dialogs.bring(() => Promise.resolve(Asked), 8);
    await new Promise((resolve) => setTimeout(resolve));
    TestBed.tick();
    expect(document.querySelector('sv-asked:last-of-type')?.textContent).toBe('nobody’s, 8');
    TestBed.inject(MatDialog).openDialogs[0].close('later');
    expect(await answer).toBe('later');
    const said = jest.spyOn(TestBed.inject(Notices), 'show').mockReturnValue();
    expect(await dialogs.bring<number, string>(() => Promise.reject(new Error('gone')), 9)).toBeUndefined();
    expect(said.mock.calls[0][0]).toBe('This could not be loaded. Try again once the server answers.');
    expect(TestBed.inject(MatDialog).openDialogs).toHaveLength(0);
  });
});
