import { meshMap } from '@hot-spline/core';
import type { LedgerEntry, Reading } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { BacklashRing } from './backlash-ring';
import { BaselineSheet } from './baseline-sheet';
import { CarrierSheet } from './carrier-sheet';
import { DepthSheet } from './depth-sheet';
import { Flank } from './flank';
import { MeshSheet } from './mesh-sheet';
import { planOf } from './next-assembly';
import { CENTRED, edgesOf } from './patch';
import { piecesMm, piecesReader, piecesText } from './pieces';
import { SetUpMap } from './set-up-map';
import { TriesTable } from './tries-table';
import { TrialStrip } from './trial-strip';
import { AS_IT_CAME, newBuild, newWork, workSubjects, type FlankPattern } from '@hot-spline/model';

const last = (bench: Bench): Reading => bench.ledger().at(-1) as LedgerEntry as Reading;
const mesh = (bench: Bench) => {
  const state = bench.derived()?.mesh.rear;
  if (!state) throw new Error('no set-up');
  return state;
};

describe('pieces of a pack', () => {
  it('are read apart by +, in either system, and said as a sum', () => {
    const read = piecesReader('Shims', 'inch');
    const { value, said } = read('35 thou + 0.05 mm');
    expect(piecesMm(value)).toBeCloseTo(0.939, 9);
    expect(said).toContain('2 pieces');
    expect(piecesText(value)).toBe('35 thou + 0.05 mm');
    expect(read('').value).toEqual([]);
    expect(() => read('a + b')).toThrowError();
    expect(() => read('-1 mm')).toThrowError();
    expect(() => read(Array(9).fill('1 mm').join('+'))).toThrowError(/9 pieces/);
  });
});

describe('a flank', () => {
  const open = async (value: FlankPattern | null, flank: 'drive' | 'coast' = 'drive') => {
    openBench(setUpBuild());
    const screen = await Screen.of(Flank, { name: 'f', flank, value, band: { u: 0.3, v: 0.2 }, loaded: true });
    const seen: FlankPattern[] = [];
    screen.fixture.componentInstance.changed.subscribe((patch) => seen.push(patch));
    const press = async (key: string, shiftKey = false): Promise<void> => {
      screen.find('#f').dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true }));
      await screen.fixture.whenStable();
    };
    return { screen, seen, press };
  };

  it('is laid by keys, ahead of what comes back', async () => {
    const { seen, press, screen } = await open(CENTRED);
    await press('ArrowRight');
    await press('ArrowRight');
    await press('ArrowDown');
    await press('ArrowUp', true);
    await press('[');
    expect(seen.at(-1)).toEqual({ ...CENTRED, u: 0.1, v: -0.05, height: 0.45, turnedDeg: -5 });
    expect(screen.text).toContain('centred');
  });

  it('the coast side is seen the other way round; other keys are left alone', async () => {
    const { seen, press } = await open(CENTRED, 'coast');
    await press('ArrowRight');
    expect(seen.at(-1)?.u).toBe(-0.05);
    await press('Tab');
    expect(seen.length).toBe(1);
  });

  it('never leaves the tooth, and says which edge it runs off', async () => {
    const { seen, press } = await open({ ...CENTRED, u: 0.98, v: 0.98 });
    await press('ArrowRight');
    await press('ArrowUp');
    expect([seen.at(-1)?.u, seen.at(-1)?.v]).toEqual([1, 1]);
    expect(seen.at(-1)?.edges).toEqual(['heel', 'face']);
    expect(edgesOf({ ...CENTRED, u: -0.7, v: -0.8 })).toEqual(['toe', 'root']);
  });

  it('shapes are choices', async () => {
    const { screen, seen } = await open(CENTRED);
    await screen.choose('Shape of the drive pattern', 'crossed');
    expect(seen.at(-1)?.shape).toBe('crossed');
  });

  it('goes to where a finger is put down', async () => {
    const { screen, seen } = await open(CENTRED);
    const picture = screen.find<HTMLElement>('#f');
    picture.setPointerCapture = () => undefined;
    picture.releasePointerCapture = () => undefined;
    const box = picture.getBoundingClientRect();
    const at = (type: string, x: number, y: number) =>
      picture.dispatchEvent(
        new PointerEvent(type, { clientX: box.left + x * box.width, clientY: box.top + y * box.height, pointerId: 1 }),
      );
    at('pointerdown', 0.2, 0.5);
    const [first] = seen;
    expect(first?.u ?? 0).toBeLessThan(0);
    at('pointermove', 0.7, 0.5);
    expect(seen.at(-1)?.u ?? 0).toBeGreaterThan(0);
    at('pointerup', 0.7, 0.5);
    at('pointermove', 0.1, 0.5);
    expect(seen.length).toBe(2);
  });
});

describe('the ring and the map', () => {
  it('places outside the band are marked, the rest is said', async () => {
    openBench(setUpBuild());
    const inputs = { mm: [0.2, 0.3, 0.2, 0.1], places: 4, band: [0.15, 0.25], here: 2 };
    const screen = await Screen.of(BacklashRing, {
      ...inputs,
      wave: { meanMm: 0.2, amplitudeMm: 0.05, angleDeg: 90 },
    });
    expect(screen.all('.point').length).toBe(4);
    expect(screen.all('.point.out').length).toBe(2);
    expect(screen.find('svg').getAttribute('aria-label')).toContain('0.20, 0.30, 0.20, 0.10');
    expect(screen.find('.here').textContent?.trim()).toBe('3');
  });

  it('every try stands on the map under its number, the next one in ochre', async () => {
    const bench = openBench(setUpBuild(), [
      ...assemblyOf(1, { backlash: 0.3, pattern: [0, -0.5, 0, -0.5] }),
      ...assemblyOf(2, { pinion: 0.8, backlash: 0.24, pattern: [0, 0.1, 0, 0] }),
    ]);
    const { job, tries } = mesh(bench);
    if (!job) throw new Error('no job');
    const screen = await Screen.of(SetUpMap, {
      map: meshMap(job),
      numbers: tries,
      next: { pinionShimMm: 0.82, ringShiftMm: 0.05 },
      nextName: '3?',
      shims: [0.8, 0.85],
    });
    expect(screen.all('.number').map((one) => one.textContent?.trim())).toEqual(['1', '2']);
    expect(screen.find('.next-name').textContent?.trim()).toBe('3?');
    expect(screen.all('.exists').length).toBe(2);
    expect(screen.find('svg').getAttribute('aria-label')).toContain('try 2: shim 0.80');
    expect(screen.all('.window').length).toBe(1);
  });
});

describe('the mesh sheet', () => {
  it('asks for what is missing, then takes backlash place by place with its state', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const screen = await Screen.of(MeshSheet);
    expect(screen.text).toContain('Backlash, place 1 of 8');
    await screen.type('Backlash, place 1 of 8', '0.3');
    await screen.type('Backlash, place 2 of 8', '0.31; 0.3; 0.3; 0.3; 0.29; 0.3');
    expect(bench.ledger().length).toBe(1);
    await screen.type('Backlash, place 8 of 8', '0.3 mm');
    const { value, state } = last(bench);
    expect(value.of === 'places' && value.entries.map(({ typed }) => typed)).toEqual([
      '0.3 mm',
      '0.31 mm',
      '0.3 mm',
      '0.3 mm',
      '0.3 mm',
      '0.29 mm',
      '0.3 mm',
      '0.3 mm',
    ]);
    expect(state['caps']).toBe('torqued');
    expect(mesh(bench).now?.backlash.trial?.mm.length).toBe(8);
  });

  it('takes the last place back, and refuses too many and rubbish', async () => {
    openBench(setUpBuild(), assemblyOf(1));
    const screen = await Screen.of(MeshSheet);
    await screen.type('Backlash, place 1 of 8', '0.3; 0.3');
    await screen.click('Take the last place back');
    await screen.type('Backlash, place 2 of 8', Array(8).fill('0.2').join(';'));
    expect(screen.text).toContain('Backlash has 8 readings.');
    await screen.type('Backlash, place 2 of 8', 'x');
    expect(screen.text).toContain('Backlash, place 2 of 8');
  });

  it('writes both flanks, and says the next move with its chance once the worker has it', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.3 }));
    const screen = await Screen.of(MeshSheet);
    for (const flank of ['drive', 'coast']) {
      const picture = screen.find(`#flank-${flank}-rear`);
      for (let i = 0; i < 10; i++)
        picture.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }));
      await screen.fixture.whenStable();
    }
    await screen.click('Grease');
    await screen.click('Record the pattern');
    expect(last(bench).instrument).toBe('Grease');
    const { value } = last(bench);
    expect(value.of === 'pattern' && [value.drive.v, value.coast.v]).toEqual([-0.5, -0.5]);
    await screen.until(() => screen.text.includes('that all is in band'));
    expect(screen.text).toMatch(/\d+ % ?that all is in band/);
    // The one answer, biggest: the pinion’s shim, and what it comes from.
    expect(screen.find('.card').textContent).toMatch(/Assembly 2.*from 1\.00/);
    expect(screen.all('hs-section .touched').map((part) => part.getAttribute('data-part'))).toContain('pinion-shim');
    expect(screen.text).toContain('less.'); // low on both flanks: a thinner shim here
  });

  it('paint it first: without a pattern nothing is proposed, and no finding proposes a move beside the advisor', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.4 }));
    const screen = await Screen.of(MeshSheet);
    await screen.until(() => screen.text.includes('Paint it first'));
    expect(screen.all('.next a').map((link) => link.textContent.trim())).toEqual([]);
    const words =
      bench.derived()?.findings.map((one) => `${one.say('metric').title} ${one.say('metric').detail}`) ?? [];
    expect(words.filter((text) => /move the ring|shim from (left|right)/i.test(text))).toEqual([]);
  });

  it('nothing begun: says what to do first; nothing loosened: read as it came, its shims not known yet', async () => {
    const bench = openBench(newBuild('Empty'));
    const begin = await Screen.of(MeshSheet);
    await begin.click('Begin the set-up');
    expect(bench.axle()?.setup).not.toBeNull();
    await begin.click('Drop-out carrier');
    expect(bench.axle()?.identity?.construction.value).toBe('drop-out');
    expect(begin.text).toContain('As it came: nothing of it is loosened yet');
    await begin.type('Backlash, place 1 of 8', '0.2; 0.21; 0.22; 0.22; 0.21; 0.2; 0.2; 0.2');
    const read = mesh(bench).came.backlash;
    expect(read?.round.meanMm).toBeCloseTo(0.2075, 9);
    expect(read?.state).toEqual(AS_IT_CAME);
    expect(mesh(bench).now).toBeNull();
  });

  it('a pattern that differs round the ring is laid at four places, one after the other', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.2 }));
    const screen = await Screen.of(MeshSheet);
    // Asked only while one is laid.
    expect(screen.all('input[name^=seen-at]')).toHaveSize(0);
    const lay = async (v: number): Promise<void> => {
      const sheet = screen.fixture.componentInstance as unknown as {
        lay(flank: 'drive' | 'coast', patch: FlankPattern): void;
      };
      sheet.lay('drive', { ...CENTRED, v });
      sheet.lay('coast', CENTRED);
      await screen.fixture.whenStable();
    };
    await lay(0.5);
    screen.all('input[name^=seen-at]')[1]?.click();
    await screen.fixture.whenStable();
    // What was laid went along, and after each place comes the next.
    for (const v of [0.5, 0.2, -0.1, 0.2]) {
      await lay(v);
      await screen.click('Record the pattern');
    }
    const places = bench
      .ledger()
      .flatMap((one) => (one.kind === 'reading' && one.subject.what === 'pattern-at' ? [one] : []));
    expect(places.map(({ subject }) => subject['place'])).toEqual(['1', '2', '3', '4']);
    expect(mesh(bench).now?.patternRound.trial?.seat).toBeTrue();
    expect(bench.derived()?.findings.find(({ id }) => id === 'mesh.rear.seat')?.verdict).toBe('stop');
  });

  it('apart, nothing is read: a trial would take the place of how it came', async () => {
    const build = setUpBuild();
    const { rear } = build.axles;
    if (rear) rear.work = newWork('unit-change', 'plate');
    const came = assemblyOf(0, { backlash: 0.2 });
    const apart: LedgerEntry = {
      ...(came[0] as Reading),
      id: '70000000-0000-4000-8000-000000000001',
      subject: workSubjects.stepDone.of({ axle: 'rear', step: 'carrier-out' }),
      value: { of: 'choice', choice: 'done' },
      state: {},
    };
    openBench(build, [...came, apart]);
    const screen = await Screen.of(MeshSheet);
    expect(screen.text).toContain('put it together');
    expect(screen.all('[id^=backlash-1]')).toHaveSize(0);
  });

  it('every try is in its table, with what moves nothing; one is voided with a reason', async () => {
    const state = { ...setUpBuild().axles.rear?.setup?.state, drag: 'light' } as never;
    openBench(setUpBuild(), [...assemblyOf(0), ...assemblyOf(1, { backlash: 0.3, pattern: [0, 0, 0, 0], state })]);
    const screen = await Screen.of(TriesTable);
    expect(screen.text).toContain('as it came');
    expect(screen.text).toContain('(moves nothing)');
    expect(screen.all('tbody tr').length).toBe(2);
  });
});

describe('the state of a trial', () => {
  it('one tap changes one of it; what is final is said', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const screen = await Screen.of(TrialStrip);
    // Off is passed over while there is side preload: it can't be.
    await screen.click('Caps: torqued; change');
    expect(bench.axle()?.setup?.state.caps).toBe('snug');
    expect(screen.text).toContain('Caps that are off hold no side preload.');
    await screen.click('Side preload: full; change');
    expect(screen.text).not.toContain('hold no side preload');
    await screen.click('Caps: snug; change');
    await screen.click('Caps: torqued; change');
    expect(bench.axle()?.setup?.state).toEqual(jasmine.objectContaining({ caps: 'off', sidePreload: 'none' }));
    expect(screen.text).toContain('trial');
  });
});

describe('the next assembly', () => {
  it('keeps the total of both sides, and turns notches against each other [exact]', () => {
    const shims = mesh(openBench(setUpBuild(), assemblyOf(1)));
    const plan = planOf(shims, { pinionShimMm: 1.1, ringShiftMm: 0.2 }, { pinion: [], sides: [] });
    expect([piecesMm(plan.pinion), piecesMm(plan.left), piecesMm(plan.right)].map((x) => Number(x.toFixed(6)))).toEqual(
      [1.1, 6.2, 5.8],
    );
    expect(() => planOf(shims, { pinionShimMm: 1, ringShiftMm: 9 }, { pinion: [], sides: [] })).toThrowError(
      /ring can't go there/,
    );
  });

  it('notches in one side are notches out of the other [exact]', () => {
    const notches = mesh(openBench(setUpBuild('drop-out'), assemblyOf(1)));
    const { leftNotches, rightNotches } = planOf(
      notches,
      { pinionShimMm: 1, ringShiftMm: 0.125 },
      { pinion: [], sides: [] },
    );
    expect([leftNotches, rightNotches]).toEqual([2, -2]);
  });

  it('is laid out on the carrier sheet, said in shop words, and put together', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const screen = await Screen.of(CarrierSheet);
    await screen.type('Toward the pinion by (− away)', '0.2');
    expect(screen.text).toContain('Ring 0.20 mm toward the pinion');
    expect(screen.text).toContain('preload stays');
    await screen.type('Pinion shims', '1 mm + 0.1 mm');
    expect(screen.text).toContain('Pinion 0.10 mm deeper.');
    await screen.type('Right shims', '6 mm');
    expect(screen.text).toContain('preload up');
    await screen.click('Put together: assembly 2');
    expect(mesh(bench).now?.number).toBe(2);
    expect(mesh(bench).now?.pinionMm).toBeCloseTo(1.1, 9);
  });

  it('adjusters by notches, counted from the first time', async () => {
    const bench = openBench(setUpBuild('integral-adjusters'), assemblyOf(1));
    const screen = await Screen.of(CarrierSheet);
    await screen.type('Left adjuster, notches in', '3');
    expect(screen.text).toContain('Left adjuster 3 notches in.');
    expect(screen.text).toContain('preload up');
    await screen.type('Right adjuster, notches in', 'three');
    expect(screen.text).toContain('must be a whole number');
    await screen.type('Right adjuster, notches in', '-3');
    await screen.click('Put together: assembly 2');
    expect(mesh(bench).now?.ringMm).toBeCloseTo((3 * 1.5) / 24, 9);
  });
});

describe('baseline and depth', () => {
  it('what came out is written piece by piece, and as one pack against it', async () => {
    const bench = openBench(setUpBuild());
    const screen = await Screen.of(BaselineSheet);
    await screen.type('Pinion shims that came out', '1 mm + 0.1 mm');
    expect(mesh(bench).now?.number).toBe(0);
    expect(mesh(bench).now?.pinionMm).toBeCloseTo(1.1, 9);
    await screen.type('as one pack', '1.2');
    expect(bench.derived()?.findings.find(({ id }) => id === 'mesh.rear.pack-pinion')?.verdict).toBe('watch');
  });

  it('the spec sheet: a band upside down is refused, an origin is said', async () => {
    const bench = openBench(setUpBuild());
    const screen = await Screen.of(BaselineSheet, { tab: 'sheet' });
    await screen.type('Backlash', '0.3 - 0.2');
    expect(screen.text).toContain('upside down');
    await screen.type('Backlash', '0.2 to 0.3 mm');
    const { backlash } = bench.axle()?.identity?.sheet ?? {};
    expect([backlash?.value.low.value, backlash?.value.high.value]).toEqual([0.2, 0.3]);
    // A value that is typed is nobody's word of where it is from; the maker’s sheet is one only with where it was read.
    await screen.type('Cap bolts', '63 N·m');
    const caps = () => bench.axle()?.identity?.sheet.capTorque;
    expect([caps()?.value.typed, caps()?.origin, caps()?.where]).toEqual(['63 N·m', 'not-said', '']);
    await screen.choose('Where cap bolts is from', 'maker');
    expect(screen.text).toContain('Only said until here stands where it was read');
    expect(bench.ledger().filter(({ kind }) => kind === 'decision')).toEqual([]);
    await screen.type('Page or picture of cap bolts', 'page 12');
    expect(screen.text).not.toContain('Only said until here stands where it was read');
    const confirmed = bench.ledger().at(-1);
    expect(confirmed?.kind === 'decision' ? confirmed.decided : '').toContain('maker’s sheet');
    await screen.choose('Where backlash is from', 'borrowed');
    expect(bench.derived()?.findings.find(({ id }) => id === 'mesh.rear.band')?.verdict).toBe('watch');
    await screen.type('Notches of an adjuster', '0');
    expect(screen.text).toContain('must be a whole number');
    await screen.type('Oil', '75W-90');
    expect(bench.axle()?.identity?.sheet.fluid?.value).toBe('75W-90');
    await screen.type('Oil', '');
    expect(bench.axle()?.identity?.sheet.fluid).toBeNull();
  });

  it('the shaft stack: a part left out is a depth error', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(0));
    const screen = await Screen.of(BaselineSheet, { tab: 'stack' });
    await screen.click('Add baffle');
    await screen.type('came out', '0.8');
    expect(screen.text).toContain('the pinion sits 0.80 mm shallower than it did');
    await screen.type('goes in', '0.8');
    expect(screen.text).not.toContain('than it did');
    await screen.click('Remove baffle');
    expect(bench.axle()?.setup?.stack).toEqual([]);
  });

  it('the schools stand side by side, with how far apart they are; a chain is built link by link', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(0, { pinion: 1.1 }));
    const screen = await Screen.of(DepthSheet);
    await screen.type('Mark, old pinion', '0.05');
    await screen.type('Mark, new pinion', '-0.03');
    expect(screen.text).toContain('1.18'); // old + mark old − mark new [exact]
    await screen.type('Maker’s chart', '1.3');
    expect(screen.text).toContain('They are 0.20 mm apart.');
    await screen.click('Add a length');
    await screen.type('Length', '1.6');
    expect(screen.text).toContain('1.60');
    await screen.click('Put in: The shim that came out');
    expect(bench.axle()?.setup?.depth.chain.length).toBe(1);
  });
});
