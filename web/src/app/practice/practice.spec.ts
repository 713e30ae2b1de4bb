import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { LESSONS } from '@hot-spline/core/practice';
import { buildFileSchema } from '@hot-spline/model';
import { practiceAxleOf, practiceBuild } from '@hot-spline/model/practice';
import { Outbox } from '../state/outbox';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { BaselineSheet } from '../mesh/baseline-sheet';
import { MeshSheet } from '../mesh/mesh-sheet';
import { PracticePage } from './practice-page';
import { PracticeSheet } from './practice-sheet';
import { PracticeTruth } from '../mesh/practice-truth';

const lesson = () => practiceBuild({ lesson: 'first-axle', seed: 0 });

describe('the practice bench', () => {
  it('has ten lessons and any axle by its seed; one that is started is a build of its own', async () => {
    openBench();
    const put = spyOn(TestBed.inject(Outbox), 'putNew').and.resolveTo();
    const router = TestBed.inject(Router);
    const gone = spyOn(router, 'navigate').and.resolveTo(true);
    const screen = await Screen.of(PracticePage);
    for (const { title } of LESSONS) expect(screen.text).toContain(title);
    await screen.type('Seed', '77');
    await screen.click('Start this axle');
    await screen.until(() => gone.calls.any());
    const [id, file] = put.calls.mostRecent().args;
    const { build } = buildFileSchema.parse(file);
    expect(build.practice).toEqual({ lesson: null, seed: 77 });
    expect(put).toHaveBeenCalledTimes(1);
    expect(gone.calls.mostRecent().args[0]).toEqual(['/builds', id, 'practice']);
  });

  it('what is kept nowhere is said; nothing is started', async () => {
    openBench();
    spyOn(TestBed.inject(Outbox), 'putNew').and.rejectWith(new Error('no room, and no server'));
    const gone = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const screen = await Screen.of(PracticePage);
    await screen.click('Start: A first axle');
    await screen.until(() => screen.text.includes('Not started'));
    expect(gone).not.toHaveBeenCalled();
  });

  it('counts, and keeps the truth until somebody ends the practice', async () => {
    const build = lesson();
    const axle = practiceAxleOf(build);
    openBench(build, [
      ...assemblyOf(0, { pinion: axle?.startShimMm ?? 1 }),
      ...assemblyOf(1, { pinion: axle?.startShimMm ?? 1, backlash: 0.3, pattern: [0, 0.5, 0, 0.5] }),
    ]);
    const screen = await Screen.of(PracticeSheet);
    // Put together once more as it came is no assembly of anybody's: you, the rule and the advisor count alike.
    expect(screen.text).toContain('Assemblies0');
    expect(screen.text).not.toContain('All is right with');
    await screen.click('Show the truth: this ends the practice');
    expect(screen.text).toContain('All is right with');
    expect(screen.text).toContain('the advisor alone');
    expect(screen.find('.next-name').textContent?.trim()).toBe('✓');
  });

  it('any other build is not for practice: no truth, no painting', async () => {
    openBench(setUpBuild(), assemblyOf(1));
    const truth = TestBed.inject(PracticeTruth);
    expect([truth.axle(), truth.backlash(), truth.pattern(), truth.torque(0), truth.cameOut()]).toEqual([
      null,
      null,
      null,
      null,
      null,
    ]);
    expect((await Screen.of(PracticeSheet)).text).toContain('not for practice');
  });
});

describe('what a practice axle shows', () => {
  it('the patches are laid as an eye sees them; under light drag they are faint', async () => {
    const bench = openBench(lesson(), assemblyOf(1));
    const screen = await Screen.of(MeshSheet);
    await screen.click('Paint, turn and look');
    await screen.click('Record the pattern');
    const seen = bench.derived()?.mesh.rear?.now?.pattern.trial;
    expect(seen?.counts).toBeTrue();
    bench.changeAxle(({ setup }) => {
      if (setup) setup.state.drag = 'light';
    });
    await screen.fixture.whenStable();
    await screen.click('Paint, turn and look');
    await screen.click('Record the pattern');
    expect(bench.derived()?.mesh.rear?.now?.pattern.trial?.counts).toBeFalse();
  });

  it('backlash is there at every place, more in a trial than closed for good; dry turns harder', () => {
    const bench = openBench(lesson(), assemblyOf(1));
    const truth = TestBed.inject(PracticeTruth);
    const trial = truth.backlash() ?? [];
    expect(trial.length).toBe(8);
    const oiled = truth.torque(0) ?? 0;
    bench.changeAxle(({ setup }) => {
      if (setup)
        Object.assign(setup.state, {
          pinionBearings: 'new',
          spacer: 'new',
          seal: 'in',
          nut: 'new',
          sideBearings: 'new',
        });
    });
    const final = truth.backlash() ?? [];
    final.forEach((mm, i) => expect(mm).toBeLessThanOrEqual(trial[i] ?? 0));
    bench.changeAxle(({ setup }) => {
      if (setup) setup.state.oil = 'dry';
    });
    expect(truth.torque(0) ?? 0).toBeGreaterThan(oiled);
  });

  it('the micrometer reads the shims that came out into the fields of the baseline', async () => {
    openBench(lesson());
    await Screen.of(BaselineSheet);
    const out = TestBed.inject(PracticeTruth).cameOut();
    expect(out?.pinion).toBe(practiceAxleOf(lesson())?.startShimMm ?? -1);
  });
});
