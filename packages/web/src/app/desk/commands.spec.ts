import {
  DestroyRef,
  EnvironmentInjector,
  createEnvironmentInjector,
  runInInjectionContext,
  signal,
} from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Addresses } from '../addresses';
import { OpenDialogs } from '../ui/open-dialogs';
import { Commands } from './commands';

const GROUP = {
  id: 'sight',
  label: 'Sight',
  commands: [
    { id: 'bake', text: 'bake', keys: ['B'], isFound: true },
    { id: 'undo', text: 'undo', keys: ['Ctrl Z'], when: 'not typing' },
    { id: 'leave', text: 'leave', keys: ['Alt 1'], when: 'always' },
  ],
} as const;

describe('commands', () => {
  let done: string[];
  let went: (readonly string[])[];
  let arrives: boolean;
  const canBake = signal(true);

  beforeEach(() => {
    [done, went] = [[], []];
    arrives = true;
    canBake.set(true);
    TestBed.configureTestingModule({
      providers: [
        {
          provide: Addresses,
          useValue: { go: (path: readonly string[]) => (went.push(path), Promise.resolve(arrives)) },
        },
      ],
    });
  });

  afterEach(() => document.body.replaceChildren());

  /** A page that does the commands until it is left. */
  const open = (): EnvironmentInjector => {
    const page = createEnvironmentInjector([], TestBed.inject(EnvironmentInjector));
    runInInjectionContext(page, () =>
      TestBed.inject(Commands).handle(GROUP, {
        bake: { run: () => done.push('bake'), enabled: canBake },
        undo: { run: () => done.push('undo') },
        leave: { run: () => done.push('leave') },
      }),
    );
    TestBed.tick();
    return page;
  };
  const press = (init: KeyboardEventInit, html = ''): boolean => {
    document.body.innerHTML = html;
    const target = document.body.querySelector('[data-target]') ?? document.body;
    const event = new KeyboardEvent('keydown', { ...init, bubbles: true, cancelable: true });
    const hear = (heard: Event): void => TestBed.inject(Commands).hear(heard as KeyboardEvent);
    document.addEventListener('keydown', hear, { once: true });
    target.dispatchEvent(event);
    return event.defaultPrevented;
  };

  it('are done by their keys while their page is there', () => {
    const page = open();
    expect([press({ key: 'b' }), press({ key: 'x' })]).toEqual([true, false]);
    page.destroy();
    expect(press({ key: 'b' })).toBe(false);
    expect(done).toEqual(['bake']);
  });

  it('are not heard while they cannot be done, and leave the key to the browser', () => {
    open();
    canBake.set(false);
    expect(press({ key: 'b' })).toBe(false);
    expect(done).toEqual([]);
  });

  it.each([
    ['<input data-target>', ['leave']],
    ['<div contenteditable data-target></div>', ['leave']],
    ['<div role="menu"><button data-target></button></div>', ['undo', 'leave']],
    ['<button data-target></button>', ['bake', 'undo', 'leave']],
  ])('within %s hear only what may be heard there', (html, heard) => {
    open();
    press({ key: 'b' }, html);
    press({ key: 'z', ctrlKey: true }, html);
    press({ key: '1', altKey: true }, html);
    expect(done).toEqual(heard);
  });

  it('of a desk rest while a dialog is open', () => {
    open();
    TestBed.inject(OpenDialogs).count++;
    press({ key: 'b' });
    press({ key: 'z', ctrlKey: true });
    expect(done).toEqual(['undo']);
  });

  it('called from elsewhere go to their desk first, and wait until it can do them', async () => {
    canBake.set(false);
    await TestBed.inject(Commands).call('sight', 'bake');
    expect([went, done]).toEqual([[['/sight']], []]);
    open();
    expect(done).toEqual([]);
    canBake.set(true);
    TestBed.tick();
    expect(done).toEqual(['bake']);
    // Once, not whenever it can.
    canBake.set(false);
    TestBed.tick();
    canBake.set(true);
    TestBed.tick();
    expect(done).toEqual(['bake']);
  });

  it('called on their own desk go nowhere', async () => {
    open();
    await TestBed.inject(Commands).call('sight', 'leave');
    TestBed.tick();
    expect([went, done]).toEqual([[], ['leave']]);
  });

  it('are forgotten when their desk is not reached, or left before it could do them', async () => {
    arrives = false;
    await TestBed.inject(Commands).call('sight', 'bake');
    open().destroy();
    expect(done).toEqual([]);
    arrives = true;
    canBake.set(false);
    await TestBed.inject(Commands).call('sight', 'bake');
    open().destroy();
    canBake.set(true);
    open();
    expect(done).toEqual([]);
  });

  it('of a page that was left are let go of', () => {
    const page = open();
    const gone: string[] = [];
    page.get(DestroyRef).onDestroy(() => gone.push('page'));
    page.destroy();
    TestBed.tick();
    expect([gone, press({ key: 'z', ctrlKey: true })]).toEqual([['page'], false]);
  });
});
