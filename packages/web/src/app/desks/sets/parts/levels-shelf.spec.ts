import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { DeskFrame, FRAME_DESK } from '../../../desk/desk-frame';
import { Session } from '../../../session';
import { LevelsShelf } from './levels-shelf';

describe('the shelf of levels', () => {
  it('is dragged higher, folds when dragged up, and comes back as it was left', async () => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [
        DeskFrame,
        { provide: FRAME_DESK, useValue: 'sets' },
        { provide: Session, useValue: { person: signal(undefined) } },
      ],
    });
    const fixture = TestBed.createComponent(LevelsShelf);
    fixture.componentRef.setInput('rows', []);
    fixture.componentRef.setInput('limit', { value: 1, name: '' });
    fixture.componentRef.setInput('measure', 'memory');
    await fixture.whenStable();
    const edge = (fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('[role=separator]');
    const pixels = async (key: string, times = 1): Promise<string | null | undefined> => {
      for (let i = 0; i < times; i++) edge?.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await fixture.whenStable();
      return edge?.getAttribute('aria-valuenow');
    };
    expect(edge?.getAttribute('aria-valuenow')).toBe('40');
    TestBed.inject(DeskFrame).flip('Shelf', false);
    expect(await pixels('ArrowDown')).toBe('112');
    expect(await pixels('ArrowDown', 40)).toBe('260');
    expect(await pixels('ArrowUp', 23)).toBe('76');
    // It stops at the least height of an open shelf; from there it takes a drag of its own to fold it.
    expect(await pixels('ArrowUp', 5)).toBe('72');
    const drag = (type: string, clientY: number): void => {
      const event = new MouseEvent(type, { clientX: 0, clientY, bubbles: true });
      Object.assign(event, { pointerId: 1 });
      edge?.dispatchEvent(event);
    };
    if (edge) edge.setPointerCapture = () => undefined;
    drag('pointerdown', 100);
    drag('pointermove', 70);
    expect(await pixels('Shift')).toBe('40');
    drag('pointermove', 120);
    drag('pointerup', 120);
    expect(await pixels('Shift')).toBe('92');
  });
});
