import { TestBed } from '@angular/core/testing';
import { FIGURES, axleSection, type SectionAid } from '@hot-spline/core';
import { sectionOfAxle } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { plateBuild } from '../../testing/drift';
import { BUILD_ID, Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { editorActions } from '../state/editor';
import { AxleSection } from './axle-section';
import { layLabels, wide, type Label } from './layout';
import { SectionDrawing } from './section-drawing';
import { ShimPlay } from './shim-play';
import { StepFigure } from './step-figure';

const label = (text: string, x: number, y = 0): Label => ({ text, anchor: { x, y }, strong: false });

describe('labels of a drawing', () => {
  it('stand in one row above or below, none over another one, none off the paper', () => {
    const labels = [label('pinion shim', 100), label('head bearing', 104), label('left cap', 395), label('ring', 10)];
    const { above, below, at } = layLabels(labels, 400, 50);
    expect([above, below]).toEqual([1, 0]);
    const row = [...at(20, 300)].sort((a, b) => a.x - b.x);
    row.forEach((one, i) => {
      expect(one.x - wide(one.text) / 2).toBeGreaterThanOrEqual(-0.001);
      expect(one.x + wide(one.text) / 2).toBeLessThanOrEqual(400.001);
      const next = row[i + 1];
      if (next) expect(next.x - one.x).toBeGreaterThanOrEqual((wide(one.text) + wide(next.text)) / 2);
    });
    // Leaders that keep their order cross nobody’s words.
    expect(row.map(({ anchor }) => anchor.x)).toEqual([10, 100, 104, 395]);
  });

  it('go to the other edge where one is full, and are left to the text where both are', () => {
    const long = 'a label of some length';
    const many = Array.from({ length: 6 }, (_, i) => label(long, 50 * i));
    const { above, below, at } = layLabels(many, 320, 50);
    expect([above, below]).toEqual([1, 1]);
    expect(at(20, 300).length).toBe(4);
  });
});

const axle = () => {
  const rear = plateBuild().axles.rear;
  if (!rear) throw new Error('no rear axle');
  return rear;
};
const section = axleSection(sectionOfAxle('rear', axle(), null));

describe('the section', () => {
  it('draws what is off as an outline, what is tried dashed, what is made filled, what is touched in ochre', async () => {
    openBench();
    const screen = await Screen.of(SectionDrawing, {
      section,
      looks: { seal: 'out', 'head-bearing': 'trial', 'ring-bolts': 'made' },
      touched: ['pinion-shim'],
      said: [{ part: 'pinion-shim', text: '5 thou more' }],
    });
    const part = (name: string) => screen.find(`[data-part="${name}"]`);
    expect(part('seal').classList).toContain('out');
    expect(part('head-bearing').querySelector('path')?.getAttribute('fill')).toContain('-trial');
    expect(part('ring-bolts').querySelector('path')?.getAttribute('fill')).toBeNull();
    expect(part('pinion').querySelector('path')?.getAttribute('fill')).toContain('-pinion');
    expect(part('pinion-shim').classList).toContain('touched');
    expect(screen.text).toContain('5 thou more');
  });

  it('moves everything that turns with the pinion, and nothing else, by a length that can be seen', async () => {
    openBench();
    const screen = await Screen.of(SectionDrawing, { section, shift: { deeperMm: -0.127, closerMm: 0 } });
    const move = (name: string) => screen.find(`[data-part="${name}"]`).getAttribute('transform');
    expect(move('pinion')).toBe('translate(-11.0 0.0)');
    expect(move('flange')).toBe(move('pinion'));
    expect(move('ring')).toBe('translate(0.0 0.0)');
    expect(move('case')).toBe('translate(0 0)');
    screen.fixture.componentRef.setInput('shift', { deeperMm: 0, closerMm: 0.05 });
    await screen.fixture.whenStable();
    expect(Math.abs(Number(/ (-?[\d.]+)\)/.exec(move('ring') ?? '')?.[1]))).toBe(11);
  });

  it('shows where an indicator stands against two places where it does not', async () => {
    openBench();
    for (const [aid, wrong] of [
      ['indicator-tooth', 2],
      ['indicator-ring-back', 2],
      ['indicator-shaft', 1],
    ] as [SectionAid, number][]) {
      const screen = await Screen.of(SectionDrawing, { section, aid });
      expect(screen.all('.dial:not(.wrong)').length).withContext(aid).toBe(1);
      expect(screen.all('.dial.wrong').length).withContext(aid).toBe(wrong);
    }
  });
});

describe('the figures of the steps', () => {
  it('each draws something of its own, and says what it shows', async () => {
    const seen = new Set<string>();
    for (const figure of FIGURES) {
      const screen = await Screen.of(StepFigure, { figure });
      expect(screen.all('svg path, svg circle, svg rect').length).withContext(figure).toBeGreaterThan(2);
      seen.add(screen.find('svg').getAttribute('aria-label') ?? '');
    }
    expect(seen.size).toBe(FIGURES.length);
  });

  it('a star has as many bolts as the ring, in their order', async () => {
    const screen = await Screen.of(StepFigure, { figure: 'star', order: [1, 4, 2, 5, 3, 6], drawnUp: 2 });
    expect(screen.all('circle.k').length).toBe(2);
    expect(screen.all('circle.o').length).toBe(1);
  });
});

describe('what a shim does', () => {
  it('says it in the signs of the axle once it is touched, and nothing is changed by it', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.3 }));
    const screen = await Screen.of(ShimPlay, { open: true });
    const before = bench.build();
    const chips = screen.all('.parts button');
    expect(chips.length).toBeGreaterThan(3);
    await screen.click(chips[0] as HTMLElement);
    expect(screen.find('.text').textContent).toMatch(/Pinion shim .*: pinion deeper .*, backlash −/);
    expect(screen.find('[data-part="pinion-shim"]').classList).toContain('touched');
    // In the drawing itself: the part answers too, and once more lets go.
    screen.find('[data-part="pinion-shim"]').dispatchEvent(new MouseEvent('click', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(screen.all('.touched').length).toBe(0);
    expect(bench.build()).toEqual(before);
    // What of it is to scale, and that nobody has said how this one is put together, is said.
    expect(screen.text).toContain('shims thicker than they are');
    expect(screen.text.includes('Nobody has said how')).toBe(bench.axle()?.identity === null);
  });

  it('what is touched stays touched while a reading arrives from elsewhere', async () => {
    const entries = assemblyOf(1, { backlash: 0.3 });
    openBench(setUpBuild(), entries.slice(0, -1));
    const screen = await Screen.of(ShimPlay, { open: true });
    await screen.click(screen.all('.parts button')[0] as HTMLElement);
    const said = screen.find('.text').textContent;
    const before = TestBed.inject(AxleSection).touches();
    TestBed.inject(Store).dispatch(
      editorActions.loaded({ id: BUILD_ID, version: 2, build: setUpBuild(), ledger: entries }),
    );
    await screen.fixture.whenStable();
    expect(TestBed.inject(AxleSection).touches()).not.toBe(before);
    expect(screen.find('.text').textContent).toBe(said);
    expect(screen.find('[data-part="pinion-shim"]').classList).toContain('touched');
  });
});
