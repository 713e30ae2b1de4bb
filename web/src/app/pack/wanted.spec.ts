import { TestBed } from '@angular/core/testing';
import { entryBase, entryOf } from '@hot-spline/core';
import { type FrictionTable, type LibrarySpec, type ShimBox, newShimBox } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Screen, openBench, plateOf } from '../../testing/harness';
import { Library } from '../state/library';
import { libraryActions } from '../state/library-slice';
import { WrenchTab } from './wrench-tab';
import { PackSheet } from './pack-sheet';
import { WantedTab } from './wanted-tab';

const drawer: ShimBox = {
  ...newShimBox('Drawer'),
  pieces: [0.5, 0.6, 0.7, 0.75, 0.8, 0.85, 0.9, 1].map((value) => ({
    thickness: entryOf(value, 'mm'),
    count: 4,
    origin: 'measured' as const,
  })),
};
const table = (...coefficients: number[]): FrictionTable => ({
  kind: 'friction',
  name: 'Bronze on steel',
  oil: '75W-90',
  readings: coefficients.map((value) => ({
    coefficient: entryOf(value, ''),
    from: 'Redshank',
    on: '2026-05-02',
    kind: 'static' as const,
    bedded: false,
    origin: 'measured' as const,
  })),
});

function fill(...specs: LibrarySpec[]): void {
  TestBed.inject(Store).dispatch(
    libraryActions.loaded({
      specs: specs.map((spec, i) => ({
        id: `40000000-0000-4000-8000-00000000000${i}`,
        version: 1,
        archived: false,
        spec,
      })),
    }),
  );
}

describe('a wanted breakaway', () => {
  async function open() {
    const bench = openBench();
    const screen = await Screen.of(WantedTab);
    fill(drawer);
    await screen.fixture.whenStable();
    const predicted = (): number => bench.figure('pack.rear.wrench.other-wheel-held')?.value ?? 0;
    return { bench, screen, predicted };
  }

  it('asks first, and takes one end with the other beside it', async () => {
    const { bench, screen } = await open();
    expect(screen.text).toContain('What should the wrench read?');
    await screen.type('Breakaway from', '50 Nm');
    const wanted = plateOf(bench).wanted;
    expect([wanted?.hold, wanted?.low.value, wanted?.high.value]).toEqual(['other-wheel-held', 50, 60]);
    await screen.type('to', '40 Nm');
    expect(plateOf(bench).wanted?.high.value).withContext('upside down is refused').toBe(60);
    await screen.choose('Read with', 'carrier-held');
    expect(plateOf(bench).wanted?.hold).toBe('carrier-held');
  });

  it('ranks packs that reach it; laying one makes the prediction land in the band, in one undo', async () => {
    const { bench, screen, predicted } = await open();
    const before = structuredClone(plateOf(bench));
    const [low, high] = [1.15 * predicted(), 1.3 * predicted()];
    await screen.type('Breakaway from', `${low.toFixed(1)} Nm`);
    await screen.type('to', `${high.toFixed(1)} Nm`);
    const rows = screen.all('tbody tr');
    expect(rows.length).toBeGreaterThan(1);
    expect(rows[0]?.querySelector('hs-verdict')).not.toBeNull();
    const said = Number(rows[0]?.querySelector('.big')?.textContent);
    expect(said).toBeGreaterThan(low - 0.1);
    expect(said).toBeLessThan(high + 0.1);
    await screen.click('Put in: plan 1');
    expect(screen.find('[role="alertdialog"]').textContent).toMatch(/target stack height would move from .* to /);
    await screen.click('Not');
    expect(plateOf(bench).packs).toEqual(before.packs);
    await screen.click('Put in: plan 1');
    await screen.click('Put these in, the target moves');
    expect(predicted()).toBeCloseTo(said, 1);
    expect(screen.text).toContain('In the packs');
    const laid = plateOf(bench);
    const plates = (side: 'left' | 'right') =>
      laid.packs[side].members.filter(({ kind }) => kind === 'eared' || kind === 'splined').map(({ id }) => id);
    for (const side of ['left', 'right'] as const)
      expect(plates(side).sort()).toEqual(
        before.packs[side].members
          .filter(({ kind }) => kind === 'eared' || kind === 'splined')
          .map(({ id }) => id)
          .sort(),
      );
    expect(laid.targetHeight).not.toEqual(before.targetHeight);
    bench.undo();
    expect(plateOf(bench).packs).toEqual(before.packs);
    await screen.fixture.whenStable();
    await screen.click('Put in: plan 1');
    await screen.click('Put these in, keep the target');
    expect(plateOf(bench).targetHeight).toEqual(before.targetHeight);
    expect(plateOf(bench).packs).toEqual(laid.packs);
  });

  it('says when the springs are too weak for it, and when no height could change it', async () => {
    const { bench, screen } = await open();
    await screen.type('Breakaway from', '5000 Nm');
    expect(screen.text).toContain('No order of these plates comes near');
    expect(screen.text).toContain('the springs press them to');
    expect(screen.text).toMatch(/the most that they reach is .*, with \d+ working surfaces a side/);
    expect(screen.text).toContain('Neither springs nested nor more surfaces reach it');
    await screen.type('Breakaway from', '20 Nm');
    await screen.type('to', '24 Nm');
    expect(screen.text).toMatch(/nested where one lies now, with the same plates, would read .* at \d+ % of flat/);
    expect(screen.text).toMatch(/The case is .* too shallow for it|There is room: .* a side is left for shims/);
    bench.changePlate(
      (plate) => (plate.preload = { from: 'measured-force', force: entryOf(1000, 'N'), acts: 'series' }),
    );
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('no height changes it');
  });
});

describe('friction learned', () => {
  const reading = (nm: number) => ['Breakaway reading', `${nm} Nm`] as const;

  async function measured(share: number, specs: LibrarySpec[] = []) {
    const bench = openBench();
    bench.changePlate((plate) => Object.assign(plate, { frictionPlates: 'Bronze on steel', oil: '75W-90' }));
    const screen = await Screen.of(WrenchTab);
    fill(...specs);
    const predicted = bench.figure('pack.rear.wrench.carrier-held')?.value ?? 0;
    const radio = screen.find<HTMLInputElement>('input[value="carrier-held"]');
    radio.click();
    await screen.fixture.whenStable();
    await screen.type(...reading(Number((share * predicted).toFixed(2))));
    return { bench, screen, library: TestBed.inject(Library) };
  }

  it('a reading says which coefficient explains it, whatever the hold; predicting with it meets the reading', async () => {
    const { bench, screen } = await measured(1.2);
    // torque goes with the coefficient: a fifth more torque, a fifth more friction [exact]
    expect(bench.figure('pack.rear.friction')?.value).toBeCloseTo(1.2 * 0.1, 3);
    expect(screen.text).toContain('20 % above');
    await screen.click('Use it');
    expect(entryBase(plateOf(bench).frictionCoefficient)).toBeCloseTo(0.12, 3);
    expect(screen.text).toContain('In use');
    expect(screen.text).toContain('on it');
  });

  it('asks for the drag before it learns: half of the turning torque is in a reading with the other wheel held', async () => {
    const bench = openBench();
    bench.changePlate((plate) => Object.assign(plate, { frictionPlates: 'Bronze on steel', oil: '75W-90' }));
    const screen = await Screen.of(WrenchTab);
    fill();
    const perPack = bench.figure('pack.rear.wrench.bench')?.value ?? 0;
    const drag = 2.3 * 4.1;
    screen.find<HTMLInputElement>('input[value="other-wheel-held"]').click();
    await screen.fixture.whenStable();
    await screen.type('Breakaway reading', `${(perPack + drag / 2).toFixed(3)} N·m`);
    expect(screen.text).toContain('The drag of the axle is in this reading');
    expect(screen.find<HTMLButtonElement>('hs-learn-bar button.quiet').disabled).toBeTrue();
    // read at the pinion and multiplied by the ratio, 41/10 here: the true coefficient comes out [exact]
    await screen.choose('Read at the', 'pinion');
    await screen.type('Turning torque, both wheels free', '2.3 N·m');
    expect(bench.figure('pack.rear.friction')?.value).toBeCloseTo(0.1, 4);
    expect(screen.text).not.toContain('The drag of the axle is in this reading');
    // while it slips it is another coefficient, and what locks in running
    await screen.type('Steady reading, slipping', `${(0.8 * perPack + drag / 2).toFixed(3)} N·m`);
    expect(bench.figure('pack.rear.friction.sliding')?.value).toBeCloseTo(0.08, 4);
    const before = bench.figure('unit.rear.drive.lock')?.value ?? 0;
    bench.changePlate((plate) => (plate.slidingCoefficient = entryOf(0.08, '')));
    expect((bench.figure('unit.rear.drive.lock')?.value ?? 0) / before).toBeCloseTo(0.8, 6);
    expect(bench.figure('pack.rear.wrench.bench')?.value).toBeCloseTo(perPack, 9);
  });

  it('a coefficient of bedded plates is not multiplied by the bedding again', async () => {
    const { bench, screen } = await measured(0.85);
    const fresh = bench.figure('pack.rear.wrench.other-wheel-held')?.value ?? 0;
    expect(bench.figure('pack.rear.bedded')?.value).toBeCloseTo(0.85 * fresh, 9);
    const box = screen.find<HTMLInputElement>('hs-learn-bar input[type="checkbox"]');
    box.click();
    await screen.fixture.whenStable();
    expect(plateOf(bench).frictionBedded).toBeTrue();
    expect(bench.figure('pack.rear.bedded')?.value).toBeCloseTo(fresh, 9);
  });

  it('is kept once in the table of its plates and oil, which is made when it is the first', async () => {
    const { screen, library } = await measured(1.1);
    const tables = library.ofKind('friction');
    await screen.click('Keep in the shop’s table');
    expect(tables().map(({ spec }) => [spec.name, spec.oil, spec.readings.length])).toEqual([
      ['Bronze on steel', '75W-90', 1],
    ]);
    expect(tables()[0]?.spec.readings[0]?.origin).toBe('measured');
    expect(screen.text).toContain('Kept in the shop’s table');
  });

  it('goes into the table that is there, however it is spelt', async () => {
    const known = { ...table(0.09, 0.1), name: 'bronze on steel ' };
    const { screen, library } = await measured(0.9, [known]);
    await screen.click('Keep in the shop’s table');
    const tables = library.ofKind('friction');
    expect(tables().length).toBe(1);
    expect(tables()[0]?.spec.readings.map(({ coefficient }) => coefficient.value)).toEqual([0.09, 0.1, 0.09]);
  });

  it('the table gives coefficient and spread to another build', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet, { tab: 'springs' });
    fill(table(0.1, 0.11, 0.12));
    await screen.fixture.whenStable();
    expect(screen.field('From the shop’s table').textContent).toContain('0.110 Bronze on steel, 75W-90 (3)');
    await screen.choose('From the shop’s table', '40000000-0000-4000-8000-000000000000');
    const plate = plateOf(bench);
    expect([plate.frictionPlates, plate.oil, entryBase(plate.frictionCoefficient)]).toEqual([
      'Bronze on steel',
      '75W-90',
      0.11,
    ]);
    // 4.303 · 0.01 · √(4/3) of 0.11 [exact but for Student's table]
    expect(plate.frictionSpread?.value).toBeCloseTo((100 * 4.303 * 0.01 * Math.sqrt(4 / 3)) / 0.11, 1);
    await screen.type('Coefficient within ±', '8 %');
    expect(plateOf(bench).frictionSpread?.value).toBe(8);
    await screen.type('Left when bedded in', '90');
    const fresh = bench.figure('pack.rear.wrench.other-wheel-held')?.value ?? 0;
    expect(bench.figure('pack.rear.bedded')?.value).toBeCloseTo(0.9 * fresh, 9);
    await screen.type('Left when bedded in', '20');
    expect(screen.said('Left when bedded in')).toContain('40');
  });
});
