import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { RowCells, RowsTable } from './rows-table';

@Component({
  imports: [RowCells, RowsTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-rows-table label="Levels" [columns]="columns" [leastWidth]="300" opened="l2">
      <ng-template [svRowCells]="rows()" let-row>
        <span role="cell">{{ row.level.id }}</span><span role="cell">{{ row.count * 2 }}</span>
      </ng-template>
    </sv-rows-table>
  `,
})
class Host {
  readonly columns = [
    { name: 'Level', width: 'minmax(0, 1fr)' },
    { name: 'Twice', width: '60px', isNumber: true },
  ];
  readonly rows = signal(Array.from({ length: 10000 }, (_, i) => ({ level: { id: `l${i}` }, count: i })));
}

describe('a table of levels', () => {
  it('has only the rows in view, each with its place among all, in columns that stay', async () => {
    const fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const lines = (): HTMLElement[] => [...element.querySelectorAll<HTMLElement>('[role=row]')];
    expect(element.querySelector('[role=table]')?.getAttribute('aria-rowcount')).toBe('10001');
    expect(lines().length).toBeGreaterThan(5);
    expect(lines().length).toBeLessThan(100);
    expect(lines()[0].textContent.trim()).toBe('LevelTwice');
    expect([...lines()[3].querySelectorAll('[role=cell]')].map((cell) => cell.textContent)).toEqual(['l2', '4']);
    expect([lines()[3].getAttribute('aria-rowindex'), lines()[3].classList.contains('opened')]).toEqual(['4', true]);
    expect(new Set(lines().map(({ style }) => style.gridTemplateColumns))).toEqual(new Set(['minmax(0, 1fr) 60px']));
    // The head goes along sideways.
    const [head, body] = [...element.querySelectorAll<HTMLElement>('[role=rowgroup]')];
    body.scrollLeft = 120;
    body.dispatchEvent(new Event('scroll'));
    expect(head.scrollLeft).toBe(120);
    fixture.componentInstance.rows.set([]);
    await fixture.whenStable();
    expect(lines()).toHaveLength(1);
  });
});
