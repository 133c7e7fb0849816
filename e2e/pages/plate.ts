import type { Locator, Page } from '@playwright/test';

/** The plan of the plate, worked by the pointer. */
export class PlatePage {
  readonly plan: Locator;

  constructor(private readonly page: Page) {
    this.plan = page.getByRole('application');
  }

  /** A point of the plan by shares of its width and height. */
  async at(x: number, y: number): Promise<[number, number]> {
    const box = await this.plan.boundingBox();
    if (!box) throw new Error('the plan is not shown');
    return [box.x + box.width * x, box.y + box.height * y];
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
