import { TestBed } from '@angular/core/testing';
import { newBuild } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { Finder } from '../frame/finder';
import { matches } from '../frame/finder-words';
import { SummarySheet } from './summary-sheet';

describe('one page to hand over', () => {
  it('holds the driveline, the choice with reasons, packs with target and readings, and what is open', async () => {
    const bench = openBench(plateBuild(), undefined, 'metric');
    const screen = await Screen.of(SummarySheet);
    expect(screen.text).toContain(bench.build()?.name ?? '?');
    const { ring, pinion } = bench.axle()?.finalDrive ?? { ring: 0, pinion: 0 };
    expect(screen.text).toContain(`Final drive ${ring}/${pinion}, and why`);
    expect(screen.text).toContain('Target stack height');
    expect(screen.text).toContain('Stack height, left');
    const open = bench.derived()?.findings.filter(({ verdict }) => verdict !== 'fits') ?? [];
    expect(screen.all('.findings li').length).toBe(Math.max(open.length, 1));
    const verdicts = screen.all('.findings hs-verdict').length;
    expect(verdicts).toBe(open.length);
    const printed = spyOn(window, 'print');
    await screen.click('Print or save as PDF');
    expect(printed).toHaveBeenCalled();
  });

  it('says the set-up as it stands, gates signed or not; on stand-ins no reasons', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.2 }), 'metric');
    const screen = await Screen.of(SummarySheet);
    expect(screen.text).toContain('Assembly1');
    expect(screen.text).toContain('Gate Anot signed');
    bench.change((draft) => (draft.assumed = ['gearbox']));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('Not judged yet: nobody has said gearbox');
  });
});

describe('the finder finds what is on the screens', () => {
  const found = async (typed: string): Promise<string> => {
    const screen = await Screen.of(Finder, { visible: true });
    const box = document.querySelector<HTMLInputElement>('#finder-box');
    if (!box) throw new Error('no box');
    box.value = typed;
    box.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    const text = document.querySelector('#finder-hits')?.textContent ?? '';
    screen.fixture.destroy();
    document.querySelectorAll('.p-dialog-mask').forEach((mask) => mask.remove());
    return text;
  };

  it('figures by other names, commands, readings by subject, and says what it searched', async () => {
    openBench(setUpBuild(), assemblyOf(1, { backlash: 0.2 }), 'metric');
    expect(await found('lash')).toContain('Backlash, mean of 8');
    expect(await found('pdf')).toContain('Print what is open');
    expect(await found('dark')).toContain('Flip day and night');
    expect(await found('back up')).toContain('Export this build');
    expect(await found('assembly 1')).toContain('Rear: assembly 1');
    const nothing = await found('zzz');
    expect(nothing).toContain('Nothing of that name among');
    expect(nothing).toMatch(/\d+ sheets.*\d+ figures.*2 readings/);
  });

  it('a match number is found; every word has to fit, or another for the same', async () => {
    const build = newBuild('Numbers');
    const { rear } = build.axles;
    if (rear) rear.matchNumbers = { ring: 'K417', pinion: '' };
    openBench(build);
    expect(await found('k417')).toContain('match number of the ring, rear');
    expect(matches('shim drawer', 'library Head shims drawer of shims')).toBeTrue();
    expect(matches('tire size', 'figure Tyre circumference')).toBeFalse();
    expect(matches('tire', 'figure Tyre circumference')).toBeTrue();
    TestBed.resetTestingModule();
  });
});
