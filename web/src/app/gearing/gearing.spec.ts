import { Screen, openBench } from '../../testing/harness';
import { plateBuild } from '../../testing/drift';
import { GearingSheet } from './gearing-sheet';

describe('the gearing sheet', () => {
  const table = (screen: Screen<GearingSheet>) =>
    screen.all('tbody tr').map((row) =>
      (row.textContent ?? '')
        .replace(/[\u202f\u00a0]/g, '')
        .replace(/\s+/g, ' ')
        .trim(),
    );

  it('a candidate is said by its ratio: the set that is known for the axle, else the nearest teeth', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    await screen.type('Compare with', '3,73');
    const [first] = bench.build()?.candidates ?? [];
    expect(Math.abs((first?.ring ?? 0) / (first?.pinion ?? 1) - 3.73)).toBeLessThan(0.02);
    await screen.type('Compare with', '43 / 11, 4.56');
    expect(bench.build()?.candidates.length).toBe(3);
    expect(bench.build()?.candidates[1]).toEqual({ ring: 43, pinion: 11 });
    for (const bad of ['0.5', '45', 'tall']) {
      await screen.type('Compare with', bad);
      expect(bench.build()?.candidates.length).withContext(bad).toBe(3);
    }
  });

  it('changes teeth and says ratio and hunting while they are typed', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    await screen.type('Pinion teeth', '11');
    expect(bench.axle()?.finalDrive).toEqual({ ring: 41, pinion: 11 });
    expect(screen.figure('gearing.rear.final')).toBe('3.727');
    const ring = screen.field('Ring teeth') as HTMLInputElement;
    ring.value = '44';
    ring.dispatchEvent(new Event('input'));
    await screen.fixture.whenStable();
    expect(screen.said('Ring teeth')).toBe('4.000, non-hunting');
  });

  it('cruise rpm stands in each row; the planned tyre and the one before have rows, until it is put away', async () => {
    const bench = openBench();
    bench.change((draft) => (draft.brief.plannedTyre = '225/45R17'));
    const screen = await Screen.of(GearingSheet);
    const cruise = screen.figure('gearing.cruise').replace(/\D/g, '');
    expect(cruise.length).toBe(4);
    expect(table(screen)[0]).toContain(cruise);
    expect(table(screen).some((row) => /^planned tyre ?225\/45R17/.test(row))).toBeTrue();
    const was = bench.axle()?.tyre.designation ?? '';
    await screen.type('Tyre', '35');
    expect(bench.axle()?.tyre.designation).toBe('35');
    const before = table(screen).find((row) => row.startsWith('tyre before') && row.includes(was));
    // On the old tyre it cruises as it did.
    expect(before).toContain(cruise);
    await screen.click('Put away');
    expect(table(screen).some((row) => row.startsWith('tyre before'))).toBeFalse();
  });

  it('refuses impossible teeth by name and keeps the drive', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    for (const [text, said] of [
      ['', 'Ring teeth must be a whole number'],
      ['4.5', 'Ring teeth must be a whole number'],
      ['2', 'Ring teeth must be a whole number'],
      ['5', '5 / 10 looks swapped'],
    ] as const) {
      await screen.type('Ring teeth', text);
      expect(screen.said('Ring teeth')).withContext(text).toContain(said);
    }
    expect(bench.axle()?.finalDrive.ring).toBe(41);
  });

  it('lays candidates over the present drive, takes one in exchange and removes one', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    await screen.type('Compare with', '37/10');
    await screen.type('Compare with', '41 / 9');
    expect(table(screen).filter((row) => row.includes('Take')).length).toBe(2);
    await screen.click('Take 37/10');
    expect(bench.axle()?.finalDrive).toEqual({ ring: 37, pinion: 10 });
    expect(bench.build()?.candidates[0]).toEqual({ ring: 41, pinion: 10 });
    await screen.click('Remove 41/9');
    expect(bench.build()?.candidates.length).toBe(1);
    for (const bad of ['37', '37/', 'a/b', '10/37', '']) {
      await screen.type('Compare with', bad);
      expect(bench.build()?.candidates.length).withContext(bad).toBe(1);
    }
  });

  it('asks for no fifth candidate', async () => {
    const build = plateBuild();
    build.candidates = [35, 36, 37, 38].map((ring) => ({ ring, pinion: 10 }));
    openBench(build);
    const screen = await Screen.of(GearingSheet);
    expect(() => screen.field('Compare with')).toThrowError(/no field/);
  });

  it('shows speeds at the limiter and the revs after each shift', async () => {
    openBench();
    const screen = await Screen.of(GearingSheet);
    // third gear 1.4 at 6800 rpm, 41/10, 225/45R17 = 634.3 mm · 3.05: v = C·n/(60·i) [exact]
    const kmh = ((0.6343 * 3.05 * 6800) / (60 * 1.4 * 4.1)) * 3.6;
    expect(screen.figure('gearing.limit.2')).toContain(kmh.toFixed(1));
    expect(table(screen)[1]).toContain(String(Math.round((6800 * 1.4) / 2))); // into third from second [exact]
  });

  it('shows a tried ratio everywhere, keeps it only when taken', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    const slider = screen.find<HTMLInputElement>('#final-slider');
    const tryRatio = async (ratio: string) => {
      slider.value = ratio;
      slider.dispatchEvent(new Event('input'));
      await screen.fixture.whenStable();
    };
    await tryRatio('3.50');
    expect(bench.previewing()).toBeTrue();
    expect(bench.derived()?.figures.get('gearing.rear.final')?.value).toBeCloseTo(3.5, 1);
    expect(bench.editor().present?.axles.rear?.finalDrive).toEqual({ ring: 41, pinion: 10 });
    await screen.click('Back');
    expect(bench.previewing()).toBeFalse();
    await tryRatio('3.50');
    await screen.click('Compare');
    expect(bench.build()?.candidates.length).toBe(1);
    expect(bench.axle()?.finalDrive).toEqual({ ring: 41, pinion: 10 });
    await tryRatio('4.90');
    await screen.click(screen.all('.tried button')[0] as HTMLElement);
    expect((bench.axle()?.finalDrive.ring ?? 0) / (bench.axle()?.finalDrive.pinion ?? 1)).toBeCloseTo(4.9, 1);
  });

  it('the speed axis does not jump while the slider moves: it grows, and shrinks when the slider is let go', async () => {
    openBench();
    const screen = await Screen.of(GearingSheet);
    const { option } = screen.fixture.componentInstance as unknown as { option: () => { xAxis: { max: number } } };
    const slider = screen.find<HTMLInputElement>('#final-slider');
    const endAt = async (ratio: string): Promise<number> => {
      slider.value = ratio;
      slider.dispatchEvent(new Event('input'));
      await screen.fixture.whenStable();
      return option().xAxis.max;
    };
    const still = option().xAxis.max;
    const long = await endAt('2.60');
    expect(long).toBeGreaterThan(still);
    expect(await endAt('5.00')).toBe(long);
    await screen.click('Back');
    expect(option().xAxis.max).toBe(still);
  });

  it('reads the tyre in any form and says which', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    await screen.type('Tyre', '300/680-18');
    expect(bench.axle()?.tyre.designation).toBe('300/680-18');
    expect(screen.said('Tyre')).toContain('too much for an aspect ratio');
    await screen.type('Tyre', '245/40Z');
    expect(screen.said('Tyre')).toContain('is not a tyre size');
    expect(bench.axle()?.tyre.designation).toBe('300/680-18');
  });

  it('starts a measurement from what is in force, in the unit of the shop', async () => {
    const bench = openBench();
    const screen = await Screen.of(GearingSheet);
    const before = bench.derived()?.figures.get('gearing.rear.circumference')?.value ?? 0;
    for (const kind of ['rollout', 'loaded-radius', 'turns'] as const) {
      await screen.choose('Rolls by', kind);
      expect(bench.axle()?.tyre.measured?.kind).toBe(kind);
      const after = bench.derived()?.figures.get('gearing.rear.circumference')?.value ?? 0;
      expect(Math.abs(after / before - 1))
        .withContext(kind)
        .toBeLessThan(0.005);
    }
    await screen.type('Turns', '500');
    expect(bench.derived()?.figures.get('gearing.rear.circumference')?.value).toBe(2000); // 10⁶/500 [exact]
    await screen.choose('Rolls by', 'unloaded');
    expect(bench.axle()?.tyre).toEqual(jasmine.objectContaining({ factor: 'unloaded', measured: null }));
  });

  it('says that an axle can’t be worked out in place of a blank', async () => {
    const build = plateBuild();
    if (build.axles.rear) build.axles.rear.tyre.designation = 'nonsense';
    openBench(build);
    const screen = await Screen.of(GearingSheet);
    expect(screen.text).toContain('can’t be worked out yet');
  });
});
