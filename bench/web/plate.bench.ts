import { fileURLToPath } from 'node:url';
import { atMost, timing, timingText, type Row } from '../measure';
import { launchBrowser } from './browser';
import type { PlateFigures } from './plate-page';

/** The page script stands beside the built benchmark. */
const SCRIPT = fileURLToPath(new URL('./bench-plate.js', import.meta.url));
/** The matrix of one instance. */
const INSTANCE_BYTES = 64;

/** 100,000 placements of 500 pieces: the plate's scene against three.js alone, with the same draws. */
export async function plateBench(): Promise<Row[]> {
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage();
    await page.setContent('<!doctype html><body></body>');
    await page.addScriptTag({ path: SCRIPT });
    const { plate, bare } = await page.evaluate(() =>
      (globalThis as unknown as { measurePlate: () => Promise<Record<'plate' | 'bare', PlateFigures>> }).measurePlate(),
    );
    const same = plate.calls === bare.calls && plate.triangles === bare.triangles;
    const [ours, theirs] = [timing(plate.frameMs), timing(bare.frameMs)];
    return [
      {
        name: 'draw calls and triangles, plate',
        value: `${plate.calls}, ${plate.triangles}`,
        goal: `equal to bare three.js: ${bare.calls}, ${bare.triangles}`,
        isMet: same,
      },
      { name: 'script time a frame, plate', value: timingText(ours) },
      { name: 'script time a frame, bare three.js', value: timingText(theirs) },
      atMost('script time, plate / bare', ours.medianMs / theirs.medianMs, 1.3),
      {
        name: 'bytes uploaded for the first frame, plate and bare',
        value: `${plate.firstFrameBytes}, ${bare.firstFrameBytes}`,
      },
      atMost('bytes uploaded, plate / bare', plate.firstFrameBytes / bare.firstFrameBytes, 1.3),
      {
        name: 'bytes uploaded for one moved placement',
        value: plate.movedBytes,
        goal: `its own ${INSTANCE_BYTES}`,
        isMet: plate.movedBytes === INSTANCE_BYTES,
      },
    ];
  } finally {
    await browser.close();
  }
}
