import { TestBed } from '@angular/core/testing';
import { CostLegend } from './cost-legend';

async function legend(
  limit: number | undefined,
  most: number,
): Promise<{ text: string; hasRed: boolean; said: string }> {
  const fixture = TestBed.createComponent(CostLegend);
  fixture.componentRef.setInput('scale', { limit, most });
  fixture.componentRef.setInput('text', (value: number) => `${value} k`);
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  return {
    text: [...element.querySelectorAll('span, strong')].map(({ textContent }) => textContent).join(' '),
    hasRed: element.querySelector('.above') !== null,
    said: element.getAttribute('aria-label') ?? '',
  };
}

describe('the legend of costs', () => {
  it('shows what is over only where something is', async () => {
    expect(await legend(380, 655)).toEqual({
      text: '0 380 k 655 k',
      hasRed: true,
      said: 'Colours: from 0, limit 380 k, most 655 k',
    });
    expect(await legend(380, 6)).toMatchObject({ text: '0 380 k most 6 k', hasRed: false });
    expect(await legend(380, 380)).toMatchObject({ hasRed: false });
  });

  it('ends at the most where nothing limits it', async () => {
    expect(await legend(undefined, 6)).toEqual({ text: '0 6 k', hasRed: false, said: 'Colours: from 0, most 6 k' });
  });
});
