import { expect, type Locator, type Page } from '@playwright/test';

/** Buttons lie along the top of the plan. */
const TOP_PIXELS = 40;

/** The plan of the plate, worked by the pointer. */
export class PlatePage {
  readonly plan: Locator;
  private readonly model: Locator;

  constructor(private readonly page: Page) {
    this.plan = page.getByRole('application');
    this.model = page.getByRole('img', { name: 'Model of the level' });
  }

  /** A point of the plan by shares of its width and height, below the buttons along its top; the model does not lie over it. */
  async at(x: number, y: number): Promise<[number, number]> {
    if (await this.model.isVisible()) {
      await this.page.getByRole('button', { name: 'Plan', exact: true }).click();
      await expect(this.model).toBeHidden();
      await this.page.keyboard.press('f');
    }
    const box = await this.plan.boundingBox();
    if (!box) throw new Error('the plan is not shown');
    return [box.x + box.width * x, box.y + TOP_PIXELS + (box.height - TOP_PIXELS) * y];
  }

  async click(x: number, y: number): Promise<void> {
    await this.page.mouse.click(...(await this.at(x, y)));
  }

  async drag(x0: number, y0: number, x1: number, y1: number): Promise<void> {
    await this.page.mouse.move(...(await this.at(x0, y0)));
    await this.page.mouse.down();
    await this.page.mouse.move(...(await this.at((x0 + x1) / 2, (y0 + y1) / 2)));
    await this.page.mouse.move(...(await this.at(x1, y1)));
    await this.page.mouse.up();
  }
}
