import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Device, Level, LevelSet } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { Session } from '../session';
import { CollectionShelf } from './collection-shelf';

const set = { id: 'works', name: 'The Works', parent: null, order: 'a0', binned: null } as LevelSet;
const level = (id: string): Level =>
  ({ id, name: id, key: `${id}-key`, set: 'works', order: id, purpose: 'play', strata: [], binned: null }) as never;
const device = { id: 'd', name: 'Handheld', budget: { triangles: 380000 } } as Device;
const parts = { sets: [set], levels: [level('a'), level('b')], devices: [device], bakes: [] };

async function shelf(answer: () => Promise<unknown>) {
  const asked: { url: string; signal?: AbortSignal }[] = [];
  const json = (url: string, { signal }: { signal?: AbortSignal }): Promise<unknown> => {
    asked.push({ url, signal });
    return answer();
  };
  const navigate = jest.fn();
  TestBed.configureTestingModule({
    providers: [
      { provide: ApiClient, useValue: { json } },
      { provide: Router, useValue: { navigate } },
      { provide: Session, useValue: { deviceOf: (devices: readonly Device[]) => devices.at(0) } },
    ],
  });
  const fixture = TestBed.createComponent(CollectionShelf);
  fixture.componentRef.setInput('collection', 'tern');
  await fixture.whenStable();
  return { fixture, asked, navigate, element: fixture.nativeElement as HTMLElement };
}
const textOf = ({ textContent }: HTMLElement): string => (textContent ?? '').trim();

describe('the shelf of a collection that is not open', () => {
  it('shows levels of which nothing is known as outlines, never as within budget', async () => {
    const { element, asked } = await shelf(() => Promise.resolve(parts));
    expect(asked.map(({ url }) => url)).toEqual(['/api/collections/tern/shelf']);
    expect(element.querySelectorAll('.unknown')).toHaveLength(2);
    expect(textOf(element)).toContain('2 levels · 2 not known');
    expect(textOf(element)).toContain('Handheld · 380 k triangles');
    expect(textOf(element)).not.toContain('above this scale');
  });

  it('leads from a core to its level', async () => {
    const { fixture, navigate } = await shelf(() => Promise.resolve(parts));
    fixture.componentInstance.open('b');
    fixture.componentInstance.open('nobody');
    expect(navigate.mock.calls).toEqual([[['/c', 'tern', 'layout', 'b-key']]]);
  });

  it('says why there are no cores', async () => {
    const none = await shelf(() => Promise.resolve({ ...parts, devices: [] }));
    expect(textOf(none.element)).toBe('No device yet, so there is no limit to hold its levels against.');
    TestBed.resetTestingModule();
    const empty = await shelf(() => Promise.resolve({ ...parts, levels: [] }));
    expect(textOf(empty.element)).toBe('No play levels yet.');
    TestBed.resetTestingModule();
    const failed = await shelf(() => Promise.reject(new Error('The server is away.')));
    expect(textOf(failed.element)).toBe('What its levels cost could not be read. The server is away.');
  });

  it('stops asking when the page is left', async () => {
    const { fixture, asked } = await shelf(() => new Promise(() => undefined));
    expect(asked[0].signal?.aborted).toBe(false);
    fixture.destroy();
    expect(asked[0].signal?.aborted).toBe(true);
  });
});
