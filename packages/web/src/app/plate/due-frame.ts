/** Draws once in the next frame however often it is asked to, and no more once its view is gone. */
export class DueFrame {
  private isDue = false;
  private isGone = false;

  constructor(private readonly draw: () => void) {}

  ask(): void {
    if (this.isDue || this.isGone) return;
    this.isDue = true;
    requestAnimationFrame(() => {
      this.isDue = false;
      if (!this.isGone) this.draw();
    });
  }

  end(): void {
    this.isGone = true;
  }
}
