import { TestBed } from '@angular/core/testing';
import { boxPlanes, type Block, type Stratum } from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';
import { StrataStack } from './strata-stack';
import { stackRows, type StackSources } from './stack-rows';

const stratum = (id: string, owner: string | null): Stratum => ({ id, name: id, role: 'structure', owner });
const block: Block = {
  id: 'b',
  name: 'b',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 3, 4]),
  sight: 'hides',
  material: 'brick',
};

function sources(over: Partial<StackSources> = {}): StackSources {
  const own = new StratumDocument('own');
  own.apply([{ document: 'own', kind: 'block', id: 'b', field: null, before: null, after: block as never }]);
  return {
    records: { base: stratum('base', null), own: stratum('own', 'l'), late: stratum('late', 'l') },
    documents: new Map([
      ['own', own],
      ['base', new StratumDocument('base')],
    ]),
    figures: [
      { stratum: 'base', memoryBytes: 100 },
      { stratum: 'own', memoryBytes: 400 },
    ],
    reach: new Map([['base', ['l', 'm', 'n']]]),
    patches: (id) => (id === 'base' ? 2 : 0),
    state: { hidden: ['base'], locked: ['own'], soloed: '' },
    active: 'own',
    ...over,
  };
}
const stack = (...ids: string[]) => ids.map((id) => ({ stratum: id, switchedOff: id === 'late' }));

describe('rows of the stack', () => {
  it('stand top first with content, share, reach and marks', () => {
    const rows = stackRows(stack('base', 'own'), sources());
    expect(
      rows.map(({ id, text, share, levels, hidden, locked, active }) => [
        id,
        text,
        share,
        levels,
        hidden,
        locked,
        active,
      ]),
    ).toEqual([
      ['own', '1 block', 1, 1, false, true, true],
      ['base', 'empty', 0.25, 3, true, false, false],
    ]);
  });

  it('say what is loading or switched off, and leave out what is gone', () => {
    expect(
      stackRows(stack('late', 'gone'), sources()).map(({ id, text, switchedOff }) => [id, text, switchedOff]),
    ).toEqual([['late', 'loading…', true]]);
    expect(stackRows([{ stratum: 'own', switchedOff: false }], sources({ documents: new Map() }))[0].text).toBe(
      'loading…',
    );
  });

  it('are shown as rows that hide, lock and become active', async () => {
    const fixture = TestBed.createComponent(StrataStack);
    fixture.componentRef.setInput('rows', stackRows(stack('base', 'own'), sources()));
    await fixture.whenStable();
    const said: string[] = [];
    fixture.componentInstance.hidden.subscribe((id) => said.push(`hide ${id}`));
    fixture.componentInstance.locked.subscribe((id) => said.push(`lock ${id}`));
    fixture.componentInstance.activated.subscribe((id) => said.push(`use ${id}`));
    const element = fixture.nativeElement as HTMLElement;
    for (const name of ['Hide own', 'Show base', 'Unlock own', 'Lock base'])
      element.querySelector<HTMLElement>(`[aria-label="${name}"]`)?.click();
    element.querySelectorAll<HTMLElement>('.name')[1].click();
    expect(said).toEqual(['hide own', 'hide base', 'lock own', 'lock base', 'use base']);
    expect(element.textContent).toContain('hidden for you');
  });
});
