import type { Page } from '@playwright/test';

/** The colour of one CSS pixel of the page as it is shown, red, green and blue from 0 to 255. */
export async function pixelAt(page: Page, x: number, y: number): Promise<readonly [number, number, number]> {
  const png = await page.screenshot({ clip: { x, y, width: 2, height: 2 } });
  return page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
    const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext(
      '2d',
    ) as OffscreenCanvasRenderingContext2D;
    context.drawImage(bitmap, 0, 0);
    const [red, green, blue] = context.getImageData(0, 0, 1, 1).data;
    return [red, green, blue] as const;
  }, png.toString('base64'));
}
