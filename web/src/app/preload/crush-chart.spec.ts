import { collapsiblePreload } from '@hot-spline/core';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { LedgerSheet } from '../ledger/ledger-sheet';
import { Rail } from '../frame/rail';
import { CrushChart } from './crush-chart';

describe('turning torque against nut angle', () => {
  const band = [1.6, 2.2] as const;

  it('every reading is a point, the next one stands ahead with its spread', async () => {
    openBench(setUpBuild(), [], 'metric');
    const reads = [
      { angleDeg: 0, nm: 1.4 },
      { angleDeg: 45, nm: 1.42 },
    ];
    const next = collapsiblePreload(
      reads.map(({ angleDeg, nm }) => ({ angleDeg, torqueNm: nm })),
      band,
      0.05,
    );
    const screen = await Screen.of(CrushChart, { reads, band, next });
    expect(screen.all('.point').length).toBe(2);
    expect(screen.all('circle.next').length).toBe(1);
    expect(screen.find('svg').getAttribute('aria-label')).toContain('at 45°');
    const x = (selector: string): number => Number(screen.find(selector).getAttribute('cx'));
    expect(x('circle.next')).toBeGreaterThan(x('.point'));
    // the band stands where its ends are: higher torque is higher up
    const box = screen.find('.band');
    expect(Number(box.getAttribute('height'))).toBeGreaterThan(0);
  });

  it('with nothing read it shows the band alone', async () => {
    openBench(setUpBuild(), [], 'metric');
    const screen = await Screen.of(CrushChart, { reads: [], band });
    expect(screen.all('.point').length).toBe(0);
    expect(screen.find('svg').getAttribute('aria-label')).toContain('not read');
    expect(screen.text).toContain('2.20 N·m');
  });
});

describe('what a set-up writes', () => {
  it('is in the ledger in the words of the bench', async () => {
    openBench(setUpBuild(), assemblyOf(2, { backlash: 0.2, pattern: [0.1, -0.2, 0, 0] }), 'metric');
    const { text } = await Screen.of(LedgerSheet);
    expect(text).toContain('Rear: assembly 2');
    expect(text).toContain('pinion 1 mm, left 6 mm, right 6 mm');
    expect(text).toContain('Rear, assembly 2: backlash round the ring');
    expect(text).toContain('drive a little low; coast centred');
  });

  it('the Rail shows Practice only where somebody practises', async () => {
    openBench(setUpBuild());
    const { text } = await Screen.of(Rail);
    expect(text).toContain('Set up');
    expect(text).toContain('Pinion depth');
    expect(text).not.toContain('Practice');
  });
});
