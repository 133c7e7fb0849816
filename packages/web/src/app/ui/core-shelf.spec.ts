import { TestBed } from '@angular/core/testing';
import { CoreShelf, type ShelfRow } from './core-shelf';
import { bytesText, countText, timeText } from './amount';
import { valueText } from './value-text';

const band = (id: string, value: number) => ({ id, name: id, role: 'structure', value, text: `${value}` });
const row = (totals: readonly number[]): ShelfRow => ({
  id: 'works',
  name: 'The Works',
  text: '',
  cores: totals.map((total, i) => ({
    id: `l${i}`,
    name: `Level ${i}`,
    bands: total > 0 ? [band('a', total / 4), band('b', (total * 3) / 4)] : [],
    total,
    totalText: `${total}`,
    held:
      total > 0
        ? { state: 'known', value: total, share: total / 100 }
        : { state: 'not known', value: undefined, share: undefined },
    selected: i === 0,
  })),
});

async function shelf(totals: readonly number[], limit: number) {
  const fixture = TestBed.createComponent(CoreShelf);
  fixture.componentRef.setInput('rows', [row(totals)]);
  fixture.componentRef.setInput('limit', limit);
  fixture.componentRef.setInput('limitName', 'Handheld · 100');
  await fixture.whenStable();
  return { fixture, element: fixture.nativeElement as HTMLElement };
}
const heights = (element: HTMLElement, core: number) =>
  [...element.querySelectorAll('.core')[core].querySelectorAll<HTMLElement>('.band')].map(({ style }) =>
    Number.parseFloat(style.height),
  );

describe('the shelf', () => {
  it('draws bands as thick as their share, the first at the bottom', async () => {
    const { element } = await shelf([80], 100);
    const [upper, lower] = heights(element, 0);
    expect(upper / lower).toBeCloseTo(3, 6);
  });

  it('marks what is over, with its share, and draws the limit across', async () => {
    const { element } = await shelf([150, 60, 0], 100);
    expect([...element.querySelectorAll('.core .over')].map(({ textContent }) => textContent)).toEqual(['+50%']);
    expect(element.querySelectorAll('.limit')).toHaveLength(1);
    expect(element.querySelectorAll('.core .unknown')).toHaveLength(1);
    const line = Number.parseFloat((element.querySelector('.limit') as HTMLElement).style.bottom);
    const tall = heights(element, 0).reduce((sum, height) => sum + height, 0);
    expect(tall / line).toBeCloseTo(1.5, 6);
  });

  it('says when the limit lies above the scale, and keeps its label off the words', async () => {
    const { element } = await shelf([1, 2], 1000);
    expect(element.querySelectorAll('.limit')).toHaveLength(0);
    expect(element.querySelector('.limit-name')?.textContent).toContain('above this scale');
    expect(Number.parseFloat((element.querySelector('.limit-name') as HTMLElement).style.bottom)).toBeLessThan(
      72 + 104,
    );
  });

  it('leads to a stratum by its band and to a level by its name, and says what lies under the pointer', async () => {
    const { fixture, element } = await shelf([80, 40], 100);
    const picked: string[] = [];
    fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    fixture.componentInstance.bandPicked.subscribe(({ core, band: of }) => picked.push(`${core} ${of}`));
    element.querySelectorAll<HTMLElement>('.names button')[1].click();
    element.querySelectorAll<HTMLElement>('.core')[0].querySelector<HTMLElement>('.band')?.click();
    expect(picked).toEqual(['l1', 'l0 b']);
    element.querySelectorAll<HTMLElement>('.core')[1].querySelector('.band')?.dispatchEvent(new Event('mouseenter'));
    expect(fixture.componentInstance.said()).toBe('Level 1 · b, 30');
  });
});

describe('amounts', () => {
  it.each([
    [0, '0', '0 B'],
    [999, '999', '999 B'],
    [1000, '1.00 k', '1.00 kB'],
    [412345, '412 k', '412 kB'],
    [1523000, '1.52 M', '1.52 MB'],
    [96000000, '96.0 M', '96.0 MB'],
    [2e9, '2.00 G', '2.00 GB'],
  ])('%d reads %s and %s', (value, count, bytes) => {
    expect([countText(value), bytesText(value)]).toEqual([count, bytes]);
  });

  it('times read in milliseconds or seconds', () => {
    expect([0, 0.3, 4.9, 85, 999, 2140, 12345].map(timeText)).toEqual([
      '0 s',
      '< 0.01 s',
      '< 0.01 s',
      '0.09 s',
      '1.00 s',
      '2.14 s',
      '12.3 s',
    ]);
  });

  it('values read as a person reads them', () => {
    expect([
      valueText(null),
      valueText(''),
      valueText(true),
      valueText(false),
      valueText(0),
      valueText('ember'),
    ]).toEqual(['—', '—', 'yes', 'no', '0', 'ember']);
    expect(valueText({ a: 'x'.repeat(200) })).toHaveLength(78);
  });
});
