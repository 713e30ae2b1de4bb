import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { entryOf } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { plateBuild } from '../../testing/drift';
import { BUILD_ID, Screen, openBench } from '../../testing/harness';
import { uiActions, uiFeature } from '../state/ui';
import { FigureButton } from '../shared/figure-button';
import { VERDICT_WORDS, VerdictMark } from '../shared/verdict';
import { Findings } from './findings';
import { Header } from './header';
import { Line } from './line';
import { Rail } from './rail';
import { WorkingPanel } from './working-panel';

/** The address, as if one stood at this sheet. */
function standAt(sheet: string): void {
  spyOnProperty(TestBed.inject(Router), 'url').and.returnValue(`/builds/${BUILD_ID}/${sheet}`);
}

describe('the findings', () => {
  it('of the sheet that is open come first; what is found elsewhere is one line that says how much and how grave', async () => {
    const build = plateBuild();
    build.coupling = { kind: 'clutch', capacity: entryOf(150, 'N·m') };
    openBench(build);
    standAt('pack');
    const screen = await Screen.of(Findings);
    const here = screen.all('#findings-list > ul')[0]?.textContent ?? '';
    expect(here).toContain('not measured yet');
    expect(here).not.toContain('Clutch slips');
    const others = screen.find('.others');
    expect(others.textContent).toMatch(/Other sheets\s*1 stop/);
    expect(others.querySelector('svg')?.getAttribute('aria-label')).toBe('stop');
    await screen.click(others);
    expect(screen.find('#findings-others').textContent).toContain('Clutch slips at full torque');
    await screen.click(others);
    expect(screen.all('#findings-others').length).toBe(0);
  });

  it('list in the units of the shop and fold away', async () => {
    const build = plateBuild();
    build.coupling = { kind: 'clutch', capacity: entryOf(150, 'N·m') };
    openBench(build);
    standAt('engine');
    const screen = await Screen.of(Findings);
    expect(screen.all('li')[0]?.textContent).toContain('Clutch slips at full torque');
    expect(screen.text).toContain('150 N·m against 200 N·m');
    TestBed.inject(Store).dispatch(uiActions.systemChosen({ system: 'inch' }));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('111 lbf·ft against 148 lbf·ft'); // 150/1.35582, 200/1.35582 [exact]
    await screen.click('Fold findings');
    expect(screen.all('li').length).toBe(0);
    await screen.click('Show findings');
    expect(screen.all('li').length).toBeGreaterThan(0);
  });

  it('jump to the sheet and the place', async () => {
    openBench();
    standAt('pack');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const screen = await Screen.of(Findings);
    const notMeasured = screen.all('li button').find((button) => button.textContent?.includes('not measured yet'));
    await screen.click(notMeasured as HTMLElement);
    expect(navigate).toHaveBeenCalledWith(['/builds', BUILD_ID, 'pack'], {
      queryParams: { tab: 'measure', at: 'measure-left-ls1' },
    });
  });
});

describe('the Rail', () => {
  it('marks each sheet with its worst finding and counts the ledger', async () => {
    const bench = openBench();
    const screen = await Screen.of(Rail);
    const mark = (name: string) =>
      screen
        .all('a')
        .find((link) => link.textContent?.includes(name))
        ?.querySelector('svg')
        ?.getAttribute('aria-label');
    expect(mark('Clutch packs')).toBe('not yet');
    expect(mark('Engine and gearbox')).toBe('fits');
    bench.change((draft) => draft.gearbox.gears.reverse());
    bench.record({ what: 'case-depth', axle: 'rear', side: 'left' }, entryOf(12.8, 'mm'), 'Depth gauge');
    await screen.fixture.whenStable();
    expect(mark('Engine and gearbox')).toBe('stop');
    expect(screen.all('a').at(-1)?.textContent?.replace(/\s+/g, '')).toBe('Ledger1');
  });
});

describe('the Rail, group by group', () => {
  it('shows the group in hand open and the others as one line with their worst mark; one more tap opens another', async () => {
    openBench();
    standAt('pack');
    const screen = await Screen.of(Rail);
    const open = () => screen.all('h2 button[aria-expanded="true"]').map((button) => button.textContent?.trim());
    expect(open()).toEqual(['Specify']);
    const bench = screen.all('h2 button').find((button) => button.textContent?.includes('Bench')) as HTMLElement;
    await screen.click(bench);
    expect(open()).toEqual(['Bench']);
    // What is folded says how it stands.
    const specify = screen.all('h2 button').find((button) => button.textContent?.includes('Specify'));
    expect(specify?.textContent).toMatch(/\d (stop|watch|not yet)/);
  });
});

describe('the Line', () => {
  it('on bench and set-up sheets is one row of figures, and comes when it is asked for', async () => {
    openBench();
    const screen = await Screen.of(Line, { folded: true });
    const away = () => screen.find('#line').classList.contains('away');
    expect(away()).toBeTrue();
    expect(screen.all('nav.row a').length).toBeGreaterThan(3);
    await screen.click('Show the Line');
    expect(away()).toBeFalse();
    await screen.click('Fold the Line');
    expect(away()).toBeTrue();
  });

  it('drags the operating point without keeping it, then keeps it outside undo', async () => {
    const bench = openBench();
    const screen = await Screen.of(Line);
    const slider = screen.find<HTMLInputElement>('#point-rpm');
    slider.value = '6000';
    slider.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    expect(screen.find('output').textContent).toContain('6\u202f000');
    expect(bench.editor().present?.startPoint.rpm).toBe(4000);
    expect(bench.point().rpm).toBe(6000);
    slider.dispatchEvent(new Event('change'));
    await screen.fixture.whenStable();
    expect(bench.point().rpm).toBe(6000);
    expect(bench.editor().present?.startPoint.rpm).withContext('no version of the build').toBe(4000);
    expect(bench.canUndo()).toBeFalse();
  });

  it('changes gear, and the figures with it', async () => {
    const bench = openBench();
    const screen = await Screen.of(Line);
    const before = bench.derived()?.figures.get('point.speed')?.value ?? 0;
    await screen.click('5');
    // 1.4 to 0.9 at one rpm [exact]
    expect((bench.derived()?.figures.get('point.speed')?.value ?? 0) / before).toBeCloseTo(1.4 / 0.9, 9);
    expect(screen.find<HTMLInputElement>('input[name="point-gear"]:checked').value).toBe('4');
  });
});

describe('figures and their working', () => {
  it('show value and unit, and open their working', async () => {
    openBench();
    const screen = await Screen.of(FigureButton, { id: 'point.input' });
    expect(screen.text).toContain('1148.0'); // 200 × 1.4 × 4.1 [exact]
    await screen.click(screen.find('button'));
    expect(TestBed.inject(Store).selectSignal(uiFeature.selectWorking)()).toBe('point.input');
    await Screen.of(WorkingPanel);
    const panel = document.querySelector('.working-drawer')?.textContent?.replace(/[\u00a0\u202f]/g, ' ') ?? '';
    expect(panel).toContain('engine torque × gear × range × final drive');
    expect(panel).toContain('1148.0 N·m');
    expect(panel).toContain('exact');
    expect(panel).toContain('+1.00 %');
  });

  it('a figure that can’t explain itself is no button to press', async () => {
    openBench();
    const screen = await Screen.of(FigureButton, { id: 'point.propRpm' });
    expect(screen.find<HTMLButtonElement>('button').disabled).toBeTrue();
    expect((await Screen.of(FigureButton, { id: 'nothing' })).all('button').length).toBe(0);
  });

  it('each verdict has its own shape and word', async () => {
    openBench();
    const shapes = new Set<string>();
    for (const [verdict, word] of Object.entries(VERDICT_WORDS)) {
      const screen = await Screen.of(VerdictMark, { verdict });
      const svg = screen.find<HTMLElement>('svg');
      expect(svg.getAttribute('aria-label')).toBe(word);
      shapes.add(svg.firstElementChild?.outerHTML.replace(/_ng[\w-]+=""/g, '') ?? '');
    }
    expect(shapes.size).toBe(4);
  });
});

describe('the header', () => {
  it('says when it was saved, flips units and theme, and calls the finder', async () => {
    const bench = openBench();
    const screen = await Screen.of(Header, { title: 'Dunlin', savedAt: '2026-02-03T04:05:00.000Z' });
    expect(screen.find('.title').textContent).toBe('Dunlin');
    expect(screen.find('.saving').textContent).toMatch(/^Saved \d/);
    let found = 0;
    screen.fixture.componentInstance.find.subscribe(() => (found += 1));
    await screen.click(screen.find('.find'));
    expect(found).toBe(1);
    const night = TestBed.inject(Store).selectSignal(uiFeature.selectNight);
    const before = night();
    await screen.click(screen.find('.theme'));
    expect(night()).toBe(!before);
    await screen.click('inch');
    expect(bench.system()).toBe('inch');
  });
});
