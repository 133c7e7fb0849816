import { shownPixels } from './piece-painter';

describe('pixels of a picture', () => {
  it('are means of what was drawn, upside up, encoded, and not darkened by what is transparent', () => {
    // One pixel wide, two high, two samples each way: below white with half of it empty, above linear grey of a half.
    const white = [255, 255, 255, 255];
    const none = [0, 0, 0, 0];
    const grey = [128, 128, 128, 255];
    const drawn = Uint8Array.from([white, none, white, none, grey, grey, grey, grey].flat());
    expect([...shownPixels(drawn, { width: 1, height: 2 }, 2)]).toEqual([188, 188, 188, 255, 255, 255, 255, 128]);
  });

  it('are nothing where nothing was drawn', () => {
    expect([...shownPixels(new Uint8Array(16), { width: 1, height: 1 }, 2)]).toEqual([0, 0, 0, 0]);
  });
});
