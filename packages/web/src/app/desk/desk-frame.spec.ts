import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import fc from 'fast-check';
import { Session } from '../session';
import { DeskFrame, FRAME_DESK, FrameMemory, INSET_BEFORE, RIGHT_PIXELS, SPLIT, readFrames } from './desk-frame';

const person = signal<{ id: string; name: string } | undefined>(undefined);

function frameOf(desk: string): DeskFrame {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [DeskFrame, { provide: FRAME_DESK, useValue: desk }, { provide: Session, useValue: { person } }],
  });
  return TestBed.inject(DeskFrame);
}

describe('the frame of a desk', () => {
  beforeEach(() => {
    localStorage.clear();
    person.set({ id: 'ada', name: 'Ada' });
  });

  it('is kept by person and desk, over a reload', () => {
    const layout = frameOf('layout');
    layout.foldLeft();
    layout.put({ rightPixels: 400 });
    layout.flip('Links');
    expect([layout.isLeftOpen(), layout.isRightOpen(), layout.isOpen('Links'), layout.isOpen('Notes', false)]).toEqual([
      false,
      true,
      false,
      false,
    ]);
    expect(frameOf('layout').kept()).toEqual({ isLeftFolded: true, rightPixels: 400, sections: { Links: false } });
    expect(frameOf('sight').kept()).toEqual({});
    person.set({ id: 'ben', name: 'Ben' });
    expect(frameOf('layout').kept()).toEqual({});
  });

  it('takes from storage only what fits, and nothing of anything else', () => {
    expect(readFrames(null).size).toBe(0);
    expect(readFrames('{"a": 1}').size).toBe(0);
    expect(readFrames('[[1, {}], "x"]').size).toBe(0);
    expect(readFrames('not json').size).toBe(0);
    const kept = {
      isLeftFolded: 'yes',
      isSwapped: true,
      rightPixels: 9999,
      split: 0,
      inset: { right: -1, bottom: 8, width: 280, height: 190 },
      sections: { Links: false, Notes: 3 },
    };
    expect(readFrames(JSON.stringify([['ada layout', kept]])).get('ada layout')).toEqual({
      isSwapped: true,
      rightPixels: RIGHT_PIXELS.most,
      split: SPLIT.least,
      sections: { Links: false },
    });
  });

  it('reads back whatever it keeps, and never throws', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const frame = readFrames(JSON.stringify([['p d', value]])).get('p d') ?? {};
        expect(readFrames(JSON.stringify([['p d', frame]])).get('p d')).toEqual(frame);
      }),
    );
    const inset = INSET_BEFORE;
    TestBed.configureTestingModule({});
    TestBed.inject(FrameMemory).keep('ada', 'sight', { inset });
    expect(readFrames(localStorage.getItem('stravel.frames')).get('ada sight')).toEqual({ inset });
  });
});
