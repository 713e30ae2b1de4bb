import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { newAxleSpec, newBuild, newSetup, type Build, type LedgerEntry, type Reading } from '@hot-spline/model';
import { practiceBuild } from '@hot-spline/model/practice';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf } from '../../testing/set-up';
import { GatesSheet } from '../plan/gates-sheet';
import { PracticeSheet } from '../practice/practice-sheet';
import { PracticeTruth } from './practice-truth';
import { BaselineSheet } from './baseline-sheet';
import { CarrierSheet } from './carrier-sheet';
import { hasMesh } from './has-mesh';

const mm = (value: number) => entryOf(value, 'mm');

function unit(): Build {
  const build = newBuild('Drive unit');
  const { rear } = build.axles;
  if (!rear) throw new Error('no axle');
  rear.identity = newAxleSpec('Siskin', 'electric-reduction', 'measured');
  rear.identity.sheet.endFloat = { value: { low: mm(0.08), high: mm(0.16) }, origin: 'maker', where: 'p. 3' };
  rear.setup = newSetup();
  return build;
}
const readings = (ledger: readonly LedgerEntry[]): Reading[] =>
  ledger.filter((one): one is Reading => one.kind === 'reading');

describe('a unit whose one shim sets end float', () => {
  it('is not asked for depth, mesh or preload; a build with one ring and pinion is', () => {
    expect(hasMesh(unit())).toBeFalse();
    expect(hasMesh(newBuild('Other'))).toBeTrue();
  });

  it('baseline asks for the one shim and nothing of a ring', async () => {
    const bench = openBench(unit(), [], 'metric');
    const screen = await Screen.of(BaselineSheet);
    expect(screen.text).not.toContain('Spiral of the pinion');
    expect(screen.text).not.toContain('Shaft stack');
    expect(screen.text).toContain('High voltage');
    await screen.type('Shim that came out', '1.25 mm');
    const [came] = readings(bench.ledger());
    expect(came?.subject).toEqual({ what: 'assembly', axle: 'rear', assembly: '0' });
    expect(came?.value).toEqual(jasmine.objectContaining({ left: [mm(1.25)], pinion: [], right: [] }));
  });

  it('what heat makes of the float stands beside it, once everything is said; it is kept nowhere', async () => {
    const bench = openBench(unit(), assemblyOf(0, { pinion: 0, left: 1.25, right: 0 }), 'metric');
    const screen = await Screen.of(CarrierSheet);
    await screen.type('End float, while tried', '0.16 mm');
    expect(screen.find('hs-heat-of-float').textContent).toContain('Say all five');
    await screen.type('Between the bearings', '300 mm');
    await screen.choose('Shaft is held', 'X');
    await screen.choose('Case, 10⁻⁶ per K', 'cast');
    await screen.type('Case warmer by, K', '80');
    await screen.type('Shaft warmer by, K', '80');
    // 300 · 80 · (21.5 − 11.7) · 10⁻⁶ = 0.235 [exact, handbook 14.2]
    expect(screen.find('hs-heat-of-float').textContent).toMatch(/Hot it has 0\.40\smm of float\./);
    await screen.choose('Shaft is held', 'O');
    expect(screen.find('hs-heat-of-float').textContent).toMatch(/Hot it is squeezed by 0\.08\smm\./);
    await screen.choose('Shaft is held', 'one-end');
    expect(screen.find('hs-heat-of-float').textContent).toContain('Heat changes nothing there');
    await screen.type('Case warmer by, K', '9000');
    expect(screen.said('Case warmer by, K')).toContain('must be a number');
    expect(readings(bench.ledger()).length).toBe(2);
  });

  it('says the next shim, lays it out, puts it together; float is read tried and bolted up, then signed for', async () => {
    const bench = openBench(unit(), assemblyOf(0, { pinion: 0, left: 1.25, right: 0 }), 'metric');
    const screen = await Screen.of(CarrierSheet);
    await screen.type('End float, while tried', '0.24 mm');
    // 1.25 + 0.24 − 0.12
    expect(screen.text).toMatch(/Middle of the band: a shim of 1\.370\smm, to be found/);
    await screen.click('Put it in');
    expect(screen.text).toMatch(/0\.120\smm thicker/);
    await screen.click('Put together: assembly 1');
    await screen.type('End float, while tried', '0.12 mm; 0.13 mm');
    expect(screen.text).toContain('0.13');
    expect(screen.text).not.toContain('Middle of the band');
    await screen.type('End float, case bolted up', '0.11 mm');
    const last = readings(bench.ledger()).at(-1);
    expect(last?.subject).toEqual({ what: 'end-float', axle: 'rear', assembly: '1', stage: 'final' });
    const gates = await Screen.of(GatesSheet);
    expect(gates.text).toContain('End float in band with the case bolted up');
    expect(bench.derived()?.gates.rear?.A.met).toBeTrue();
  });

  it('for practice the gauge reads the hidden float, and the truth is said at the end', async () => {
    const build = practiceBuild({ lesson: 'one-shim', seed: 0 });
    const bench = openBench(build, [], 'metric');
    const truth = TestBed.inject(PracticeTruth);
    const out = truth.cameOut()?.left ?? 0;
    expect(truth.endFloat(false)).toBeNull();
    TestBed.inject(PracticeTruth);
    bench.record(
      { what: 'assembly', axle: 'rear', assembly: '0' },
      { of: 'assembly', pinion: [], left: [mm(out)], right: [], leftNotches: 0, rightNotches: 0 },
      'Micrometer',
    );
    const [tried, final] = [truth.endFloat(false) ?? 0, truth.endFloat(true) ?? 0];
    expect(tried).toBeGreaterThan(final);
    const screen = await Screen.of(PracticeSheet);
    await screen.click('Show the truth: this ends the practice');
    expect(screen.text).toContain('It is not in spec as it stands');
    expect(screen.text).toContain('it takes one assembly');
  });
});
