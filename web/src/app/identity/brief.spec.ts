import { newAxleSpec } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { TestBed } from '@angular/core/testing';
import { Screen, openBench } from '../../testing/harness';
import { libraryActions } from '../state/library-slice';

import { BriefSheet } from './brief-sheet';

const onAxle = () => Screen.of(BriefSheet, { tab: 'axle' });

describe('the brief', () => {
  it('keeps job, goal and car, each as one undoable step', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.type('Build', 'Dunlin');
    await screen.choose('Use', 'rock');
    await screen.choose('Goal', 'crawl');
    await screen.type('Crawl ratio wanted', '70');
    await screen.type('Weight, driver in', '3000 lb');
    const build = bench.build();
    expect([build?.name, build?.use, build?.brief.goal, build?.brief.crawlRatio.value]).toEqual([
      'Dunlin',
      'rock',
      'crawl',
      70,
    ]);
    expect(build?.road.mass).toEqual({ typed: '3000 lb', value: 3000, unit: 'lb' });
    for (let i = 0; i < 5; i++) bench.undo();
    expect(bench.canUndo()).toBeFalse();
  });

  it('a window upside down is refused and the brief stays', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.type('Rpm to', '2000');
    expect(bench.build()?.brief.window).toEqual({ lowRpm: 4000, highRpm: 6500 });
  });

  it('a planned tyre brings equal gearing; empty takes it away; nonsense is refused in place', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.type('Planned tyre', '245/40R18');
    expect(bench.figure('match.equal')).not.toBeNull();
    await screen.type('Planned tyre', '245/40Z');
    expect(screen.said('Planned tyre')).toContain('not a tyre size');
    await screen.type('Planned tyre', '');
    expect(bench.build()?.brief.plannedTyre).toBeNull();
  });

  it('what is asked beside the goal is said, emptied again, and refused where it is none', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.type('Cruise at most', '2,600');
    await screen.type('Top speed at least', '150 mph');
    expect(bench.build()?.brief.limits.cruiseRpm?.value).toBe(2600);
    expect(bench.build()?.brief.limits.topSpeed).toEqual(jasmine.objectContaining({ value: 150, unit: 'mph' }));
    await screen.type('Run at most', '-3');
    expect(bench.build()?.brief.limits.time).toBeNull();
    await screen.type('Run at most', '');
    await screen.type('Cruise at most', '');
    expect(bench.build()?.brief.limits.cruiseRpm).toBeNull();
    bench.undo();
    expect(bench.build()?.brief.limits.cruiseRpm?.value).toBe(2600);
  });

  it('a mass in tonnes is asked about before it is kilograms', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    const before = bench.build()?.road.mass;
    await screen.type('Weight, driver in', '2.6 kg');
    expect(screen.said('Weight, driver in')).toContain('far from what this usually is');
    expect(bench.build()?.road.mass).toEqual(before);
  });

  it('complaints are pressed and let go', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.click('whines');
    await screen.click('runs hot');
    await screen.click('whines');
    expect(bench.build()?.brief.complaints).toEqual(['runs-hot']);
  });

  it('the speedometer was right with another final and tyre', async () => {
    const bench = openBench();
    const screen = await Screen.of(BriefSheet);
    await screen.type('Right with final', '37/10');
    expect(bench.build()?.brief.was).toEqual({ finalDrive: { ring: 37, pinion: 10 }, tyre: '225/45R17' });
    // 3.7/4.1 on the same tyre [exact]
    expect(bench.figure('match.reading')?.value).toBeCloseTo((100 * 3.7) / 4.1, 9);
  });
});

describe('the axle of the brief', () => {
  it('is described here, with thread hand shown large where it is left', async () => {
    const bench = openBench();
    const screen = await onAxle();
    await screen.click('Describe it here');
    expect(bench.axle()?.identity?.name).toContain('Test');
    await screen.type('Ring bolts', '7/16-20');
    await screen.choose('Thread hand', 'left');
    expect(bench.axle()?.identity?.ringBolts?.value).toEqual({ thread: '7/16-20', count: 10, hand: 'left' });
    expect(screen.all('.left').length).toBe(1);
    expect(bench.derived()?.findings.some(({ id }) => id === 'identity.hand.rear')).toBeTrue();
  });

  it('knows carriers and sets, each with where it is known from', async () => {
    const bench = openBench();
    const screen = await onAxle();
    await screen.click('Describe it here');
    await screen.click('Carrier');
    await screen.type('Carrier 1 from ratio', '3.5');
    await screen.type('Carrier 1 to ratio', '4.5');
    await screen.choose('Carrier in it', '1 series');
    expect(bench.axle()?.carrier).toBe('1 series');
    await screen.type('Add a set by teeth', '41/10');
    await screen.type('41/10 price', '240');
    await screen.type('41/10 days', '3');
    await screen.choose('41/10 known from', 'guess');
    expect(bench.axle()?.identity?.sets).toEqual([
      { ring: 41, pinion: 10, torqueLimit: null, price: 240, leadDays: 3, welded: false, origin: 'guess' },
    ]);
    await screen.type('41/10 price', '');
    expect(bench.axle()?.identity?.sets[0]?.price).toBeNull();
    await screen.click('Remove set 41/10');
    expect(bench.axle()?.identity?.sets).toEqual([]);
  });

  it('match numbers are compared as they are typed', async () => {
    openBench();
    const screen = await onAxle();
    await screen.type('Match number, ring', 'A12');
    expect(screen.find('.match').textContent).toContain('read the other one');
    await screen.type('pinion', 'A13');
    expect(screen.find('.match').textContent).toContain('not a pair');
    await screen.type('pinion', 'A12');
    expect(screen.find('.match').textContent).toContain('a pair');
  });

  it('comes from the library, and says whether it still is the library’s', async () => {
    const bench = openBench();
    const spec = { ...newAxleSpec('Stock axle'), sets: [] };
    TestBed.inject(Store).dispatch(
      libraryActions.loaded({
        specs: [{ id: '40000000-0000-4000-8000-000000000001', version: 3, archived: false, spec }],
      }),
    );
    const screen = await onAxle();
    await screen.choose('From the library', '40000000-0000-4000-8000-000000000001');
    expect(bench.axle()?.identity).toEqual(spec);
    expect(screen.text).toContain('In the library as it is');
    await screen.type('Add a set by teeth', '41/10');
    expect(screen.text).toContain('Keep in the library');
    expect(screen.text).toContain('Change “Stock axle” there');
  });
});

describe('the ratio while it is closed', () => {
  it('turns are written one by one; three of them say a ratio and how the set of the build stands to it', async () => {
    const bench = openBench();
    const screen = await onAxle();
    await screen.type('Prop shaft, turns', '-40');
    await screen.type('Left wheel, turns', '-10');
    expect(screen.find('hs-turns').textContent).toContain('A tag is no count');
    await screen.type('Right wheel, turns', '-10');
    expect(bench.figure('identity.rear.closed')?.value).toBeCloseTo(4, 9);
    expect(screen.find('hs-turns').textContent).toMatch(/by its turns it is not|turns agree with/);
    await screen.type('Right wheel, turns', '10');
    // The carrier stood still: refused where it was said, and no ratio is made of it.
    expect(bench.figure('identity.rear.closed')).toBeNull();
    expect(bench.derived()?.findings.some(({ place }) => place.field === 'turns-left-rear')).toBeTrue();
  });

  it('what is at the ends of the axle is said once, and taken back; a unit without a prop shaft is asked for no turns', async () => {
    const bench = openBench();
    const screen = await onAxle();
    await screen.click('Describe it here');
    await screen.choose('Brake', 'drum');
    await screen.choose('Wheel bearing', 'in-tube');
    const said = () => bench.build()?.axles.rear?.identity;
    expect(said()?.brake).toEqual({ value: 'drum', origin: 'not-said' });
    expect(said()?.wheelBearing?.value).toBe('in-tube');
    await screen.choose('Brake', '');
    expect(said()?.brake).toBeNull();
    await screen.choose('Construction', 'electric-reduction');
    expect(screen.all('hs-turns').length).toBe(0);
  });
});
