import { TestBed } from '@angular/core/testing';
import { InputError, entryOf } from '@hot-spline/core';
import { boxSubjects, gearPairs, newBox, NEW_BOX_ASSUMED, type Build, type LedgerEntry } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench } from '../../testing/harness';
import type { PaperInput } from '../shared/paper';
import type { Bench } from '../state/bench';
import { Library } from '../state/library';
import { BoxDrawing } from './box-drawing';
import { roundTheEdge } from './face-map';
import { spotsReader } from './spots';
import { BoxSheet } from './box-sheet';
import { FIELDS } from './fields';
import { paper } from './paper';

// A box of our own invention: six gears, a hub between each two.
const TEETH = ['38/14', '35/17', '33/20', '31/22', '28/24', '26/25'];
function geared(): Build {
  const build = plateBuild();
  build.gearbox = {
    ...build.gearbox,
    kind: 'sequential',
    gears: TEETH.map((typed, i) => {
      const [driven = 1, driver = 1] = typed.split('/').map(Number);
      return { name: String(i + 1), ratio: { typed, value: driven / driver, unit: '' } };
    }),
  };
  build.startPoint = { ...build.startPoint, gear: 0 };
  build.shelf.pairs = [{ id: 's1', driver: 21, driven: 32, positions: [3], torqueLimit: null }];
  return build;
}
function boxed(change: (build: Build) => void = () => undefined): Build {
  const build = geared();
  build.box = newBox(build);
  change(build);
  return build;
}
const inside = (bench: Bench) => {
  const box = bench.build()?.box;
  if (!box) throw new Error('no box');
  return box;
};
const open = (tab: string) => Screen.of(BoxSheet, { tab });
const typed = (bench: Bench): string[] => bench.build()?.gearbox.gears.map(({ ratio }) => ratio.typed) ?? [];

describe('the box sheet', () => {
  it('begins with the teeth of the gears, and marks what nobody has said', async () => {
    const bench = openBench(geared());
    const screen = await open('stack');
    await screen.click('Describe the box');
    expect(gearPairs(inside(bench)).map(({ driven, driver }) => `${driven}/${driver}`)).toEqual(TEETH);
    expect(bench.build()?.assumed).toEqual(jasmine.arrayContaining([...NEW_BOX_ASSUMED]));
    // Only what rests on nothing that was measured judges: nothing of it.
    const own = bench.derived()?.findings.filter(({ id }) => id.startsWith('box.')) ?? [];
    expect(own.every(({ verdict }) => verdict === 'not-yet')).toBeTrue();
  });

  it('asks for teeth where gears are typed as ratios', async () => {
    const build = geared();
    build.gearbox.gears = [{ name: '1', ratio: entryOf(3.1, '') }];
    openBench(build);
    const screen = await open('stack');
    expect(screen.text).toContain('34/21, not as a ratio');
  });

  it('every field of it is one that the finder knows', async () => {
    const build = boxed((b) => {
      if (!b.box) return;
      Object.assign(b.box, {
        helix: entryOf(20, '°'),
        dogs: { count: 6, ring: entryOf(18, '°'), gear: entryOf(18, '°') },
        wearing: [{ id: 'driven-last', name: 'Far bearing', lifeHours: null, fromRun: 0 }],
      });
      b.box.shafts.driven.arrangement = 'one-end';
      b.box.drum = {
        ...{ radius: entryOf(30, 'mm'), slop: entryOf(0.2, 'mm'), depth: entryOf(3, 'mm'), period: null, detents: [0] },
        tracks: [
          {
            hub: 'hub1',
            points: [
              [0, 0],
              [10, 0],
            ],
          },
        ],
      };
    });
    openBench(build);
    const known = new Set(FIELDS.map(([, , label]) => label));
    for (const tab of ['drum', 'float', 'life', 'synchro', 'counted', 'inside']) {
      const screen = await open(tab);
      if (tab === 'counted') await screen.click('Add a place');
      const labels = screen
        .all('label[for]')
        .map(
          (label) =>
            label.textContent
              ?.replace(/\s+/g, ' ')
              .trim()
              .replace(/ , .*$/, '') ?? '',
        )
        .filter((label) => !/\d|^Track of/.test(label));
      expect(labels.filter((label) => !known.has(label)))
        .withContext(tab)
        .toEqual([]);
      for (const [, of, label, name] of FIELDS)
        if (of === tab && !['box-from-library', 'box-next-shim-driven'].includes(name))
          expect(screen.element.querySelector(`#${name}`))
            .withContext(`${label}: ${name}`)
            .not.toBeNull();
      screen.fixture.destroy();
    }
  });
});

describe('the stack', () => {
  it('a pair is looked at, says what comes apart, and is put in with its gear: a round of its own', async () => {
    const bench = openBench(boxed());
    const screen = await open('stack');
    await screen.click('3');
    await screen.click('Look at 32/21');
    expect(screen.find('[data-answer]').textContent).toContain('32/21');
    expect(screen.find('.card').textContent).toContain('1.650 → 1.524');
    // Above the third pair on either shaft: far bearing, sixth, hub, fifth, washer, fourth, hub, third.
    expect(screen.find('.card').textContent).toMatch(/Comes apart\s*16 pieces/);
    expect(bench.editor().present?.box?.pairs[2]?.driver).toBe(20); // looked at, not taken
    await screen.click('Put in and re-stack');
    expect(typed(bench)[2]).toBe('32/21');
    expect(inside(bench).pairs[2]).toEqual(jasmine.objectContaining({ driver: 21, driven: 32, fits: [3] }));
    expect(bench.build()?.boxWork).toEqual({ round: 2, pieces: jasmine.any(Array) });
  });

  it('teeth that do not go are said at the pair; left, everything is as it was', async () => {
    const bench = openBench(boxed());
    const screen = await open('stack');
    await screen.click('3');
    await screen.type('Other teeth, driven / driver', '36/19');
    expect(screen.find('.card').textContent).toContain('jams');
    expect(screen.all('.place button.stop').map((one) => one.textContent?.trim())).toEqual(['3']);
    expect(screen.all('button').some((one) => one.textContent?.trim() === 'Put it in all the same')).toBeTrue();
    await screen.click('As it was');
    expect(typed(bench)).toEqual(TEETH);
    expect(screen.all('.place button.stop')).toEqual([]);
    screen.fixture.destroy();
    expect(bench.previewing()).toBeFalse();
  });

  it('gears that another sheet took are offered to the box', async () => {
    const bench = openBench(
      boxed((build) => {
        const fifth = build.gearbox.gears[4];
        if (fifth) fifth.ratio = { typed: '27/25', value: 27 / 25, unit: '' };
      }),
    );
    const screen = await open('stack');
    expect(screen.text).toContain('other pair than in the box');
    await screen.click('Look at them in the box');
    await screen.click('Put in and re-stack');
    expect(inside(bench).pairs[4]).toEqual(jasmine.objectContaining({ driver: 25, driven: 27 }));
    expect(screen.text).not.toContain('other pair');
  });

  it('what is held over a gear is looked at, and forgotten where it leaves', async () => {
    const bench = openBench(boxed());
    const screen = await open('stack');
    const drawing = screen.fixture.debugElement.query(
      ({ componentInstance }) => componentInstance instanceof BoxDrawing,
    ).componentInstance as BoxDrawing;
    drawing.over.emit({ id: 'p3', teeth: { driver: 21, driven: 32, fits: [3], shiftSum: null } });
    await screen.fixture.whenStable();
    expect(screen.text).toContain('Gear 3, looked at');
    drawing.left.emit();
    await screen.fixture.whenStable();
    expect(screen.text).toContain('As it is stacked');
    expect(bench.previewing()).toBeFalse();
  });

  it('every gear stands in its plane: one line joins the two of a pair', async () => {
    openBench(boxed());
    const screen = await open('stack');
    const planes = screen.all('path.plane').map((path) => path.getAttribute('d') ?? '');
    expect(planes.length).toBe(6);
    for (const plane of planes) {
      const [, from, to] = /^M([\d.]+) .*L([\d.]+) /.exec(plane) ?? [];
      expect(from).withContext(plane).toBe(to);
    }
  });
});

describe('drum, float, steps, hours, synchro', () => {
  const drummed = (): Build =>
    boxed((build) => {
      if (!build.box) return;
      build.box.drum = {
        ...{ radius: entryOf(28, 'mm'), slop: entryOf(0.2, 'mm'), depth: entryOf(3, 'mm'), period: null },
        detents: [0, 50],
        tracks: [
          {
            hub: 'hub1',
            points: [
              [-10, -6],
              [6, -6],
              [24, 0],
              [26, 0],
              [44, 6],
              [60, 6],
            ],
          },
        ],
      };
    });

  it('a drum is played gear by gear, and a corner moved by keys is judged anew', async () => {
    const bench = openBench(drummed());
    const screen = await open('drum');
    expect(screen.find('.play strong').textContent).toBe('Gear 1 is in');
    await screen.click('Gear up');
    expect(screen.find('.play strong').textContent).toBe('Gear 2 is in');
    // Four gears have no detent yet.
    expect(screen.find('[data-answer]').textContent).toContain('not in at its detent');
    const corner = screen.all('circle.corner')[2] as HTMLElement;
    for (let i = 0; i < 12; i++)
      corner.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
    await screen.fixture.whenStable();
    expect(inside(bench).drum?.tracks[0]?.points[2]).toEqual([12, 0]);
    // 6 mm in 6° at a radius of 28: atan(6 ÷ 2.93) = 64° [exact]
    expect(screen.find('[data-answer]').textContent).toContain('a ramp stands at 64');
  });

  it('corners are typed; what is no corner is refused and nothing is lost', async () => {
    const bench = openBench(drummed());
    const screen = await open('drum');
    const label = 'Track of 1–2: degrees and millimetres of each corner';
    await screen.type(label, '-10 -6, 6 -6, x 0');
    expect(screen.said(label)).toContain('is no corner');
    expect(inside(bench).drum?.tracks[0]?.points.length).toBe(6);
    await screen.type(label, '-10 -6, 10 -6, 30 0, 60 0');
    expect(inside(bench).drum?.tracks[0]?.points).toEqual([
      [-10, -6],
      [10, -6],
      [30, 0],
      [60, 0],
    ]);
  });

  it('a float job: shim, readings that repeat, next shim, read again, approved', async () => {
    const bench = openBench(
      boxed((build) => {
        if (build.box) build.box.shafts.driven.float = { low: entryOf(0.1, 'mm'), high: entryOf(0.18, 'mm') };
      }),
    );
    const screen = await open('float');
    const field = async (id: string, text: string): Promise<void> => {
      const input = screen.find<HTMLInputElement>(`#${id}`);
      input.value = text;
      input.dispatchEvent(new Event('input', { bubbles: true }));
      await screen.fixture.whenStable();
      input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
      await screen.fixture.whenStable();
    };
    await field('box-shim-driven', '1.70 mm');
    await field('box-float-driven', '0.31 mm');
    expect(screen.text).toContain('one reading alone does not count');
    await field('box-float-driven', '0.32 mm');
    const job = () => bench.derived()?.box?.floats.driven;
    expect(job()?.now?.floatMm).toBeCloseTo(0.315, 9);
    expect(screen.find('.next').textContent).toContain('1.88');
    await field('box-next-shim-driven', '1.87 mm');
    await field('box-float-driven', '0.14 mm');
    await field('box-float-driven', '0.15 mm');
    expect(job()?.inBand).toBeTrue();
    await screen.click('Approve this float');
    expect(job()?.approved).not.toBeNull();
    expect(screen.text).toContain('Approved');
    const kept = bench.ledger().filter((entry): entry is LedgerEntry & { kind: 'reading' } => entry.kind === 'reading');
    expect(kept.filter(({ subject }) => subject.what === 'box-float').length).toBe(4);
  });

  it('apart step by step, and together again until nothing is out', async () => {
    const bench = openBench(boxed());
    const screen = await open('steps');
    const steps = screen.all('.list li').length;
    for (let i = 0; i < steps; i++) await screen.click('Done, next');
    expect(screen.find('.out strong').textContent).toBe('26');
    expect(screen.find('.now h2').textContent).toContain('Run-out of the bare driving shaft');
    while (screen.all('button').some((one) => one.textContent?.trim() === 'Done, next'))
      await screen.click('Done, next');
    expect(screen.text).toContain('It is together');
    expect(screen.all('.out')).toEqual([]);
    await screen.click('Open it once more, whole');
    expect(bench.build()?.boxWork).toEqual({ round: 2, pieces: null });
    expect(screen.text).toContain('0 of');
  });

  it('hours are logged, and begin anew with a pair that went in', async () => {
    const bench = openBench(boxed());
    const screen = await open('life');
    await screen.type('Run, time under load', '90 min');
    await screen.click('Gear 2 went in new');
    await screen.type('Run, time under load', '30 min');
    expect(
      screen
        .all('tbody tr')
        .slice(0, 2)
        .map((row) => row.textContent?.includes('2.0 h')),
    ).toEqual([true, false]);
    expect(bench.derived()?.box?.hours.get('p2')).toBe(0.5);
  });

  it('a bearing of the stack is counted by its hours, and the oil by its name', async () => {
    const bench = openBench(boxed());
    const screen = await open('life');
    const offered = screen.find<HTMLSelectElement>('#box-wearing');
    const bearing = [...offered.options].find(({ text }) => text.startsWith('Bearing last, driven'));
    offered.value = bearing?.value ?? '';
    offered.dispatchEvent(new Event('change', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(inside(bench).wearing.map(({ name }) => name)).toEqual(['Bearing last, driven shaft']);
    const named = screen.find<HTMLInputElement>('#box-wearing-named');
    named.value = 'Oil';
    named.dispatchEvent(new Event('input', { bubbles: true }));
    await screen.fixture.whenStable();
    named.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await screen.fixture.whenStable();
    expect(inside(bench).wearing.length).toBe(2);
    await screen.click('Remove Oil');
    expect(inside(bench).wearing.length).toBe(1);
  });

  it('thrust of a helical box says which bearing takes it, and whether the shim sees it', async () => {
    openBench(
      boxed((build) => {
        if (!build.box) return;
        build.box.helix = entryOf(20, '°');
        build.box.pairs.forEach((pair) => Object.assign(pair, { driverHand: 'right', drivenHand: 'left' }));
        Object.assign(build.box.shafts.driving, { arrangement: 'X', shim: 'far' });
      }),
    );
    const screen = await open('life');
    const rows = screen.all('section[aria-label="Thrust"] tbody tr');
    expect(rows.length).toBe(6);
    expect(rows[0]?.textContent).toContain('far end, at the shim');
  });

  it('synchro parts are said part by part', async () => {
    const bench = openBench(boxed((build) => (build.gearbox.kind = 'synchro')));
    const screen = await open('synchro');
    const ring = screen.find<HTMLSelectElement>('#synchro-p1-ring');
    ring.value = 'worn';
    ring.dispatchEvent(new Event('change', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(bench.readingOf(boxSubjects.synchroPart.of({ pair: 'p1', part: 'ring' }))?.value).toEqual({
      of: 'choice',
      choice: 'worn',
    });
    expect(screen.text).toContain('1 of 30');
  });
});

describe('what holds it together', () => {
  it('is counted out and in again, each behind what it waits for; a round more begins anew', async () => {
    const bench = openBench(boxed());
    const screen = await open('counted');
    await screen.click('Add a place');
    await screen.type('Place', 'Spring');
    await screen.click('What Spring are');
    await screen.click('Add a place');
    await screen.type('Place', 'Case joint');
    await screen.type('How many', '12');
    const waits = screen.all('fieldset label').find((label) => label.textContent?.includes('Spring'));
    waits?.querySelector('input')?.click();
    await screen.fixture.whenStable();
    expect(inside(bench).places.map(({ name, count, after }) => [name, count, after.length])).toEqual([
      ['Spring', 1, 0],
      ['Case joint', 12, 1],
    ]);
    const counted = () => bench.derived()?.box?.counted;
    await screen.click('All 1 out: Spring');
    await screen.click('All 12 out: Case joint');
    expect(screen.find('[data-answer]').textContent).toBe('Still out');
    await screen.click('All 12 in: Case joint');
    expect(screen.find('[data-answer]').textContent).toBe('Gone in too early');
    await screen.click('All 1 in: Spring');
    expect(counted()?.closed).toBeTrue();
    await screen.click('One in: Case joint');
    expect(screen.find('[data-answer]').textContent).toBe('The counts do not agree');
    bench.change((draft) => (draft.boxWork = { round: 2, pieces: null }));
    await screen.fixture.whenStable();
    expect(screen.find('[data-answer]').textContent).toBe('Nothing is counted out yet');
    // Places that wait for each other are no order: refused, and nothing is lost.
    await screen.click('What Spring are');
    screen
      .all('fieldset label')
      .find((label) => label.textContent?.includes('Case joint'))
      ?.querySelector('input')
      ?.click();
    await screen.fixture.whenStable();
    expect(inside(bench).places[0]?.after).toEqual([]);
  });
});

describe('a map of a face', () => {
  const counted = () =>
    openBench(
      boxed((build) =>
        build.box?.places.push({
          id: 'joint',
          name: 'Joint',
          face: 'motor side',
          count: 3,
          hidden: false,
          spots: [[10, 20]],
          torque: null,
          after: [],
        }),
      ),
    );

  it('what is touched is counted out, then in; places are touched in, typed, and refused beyond what there is', async () => {
    const bench = counted();
    const screen = await open('counted');
    const dot = () => screen.find('hs-face-map g');
    for (let i = 0; i < 4; i++) {
      dot().dispatchEvent(new PointerEvent('pointerup', { bubbles: true }));
      await screen.fixture.whenStable();
    }
    // Three out, and the fourth touch is the first in.
    expect(screen.find('hs-face-map svg').getAttribute('aria-label')).toBe(
      'motor side: 2 out, 1 in again, 0 not touched',
    );
    await screen.click('What Joint are');
    const svg = screen.find('hs-face-map svg');
    const box = svg.getBoundingClientRect();
    svg.dispatchEvent(
      new PointerEvent('pointerup', {
        bubbles: true,
        clientX: box.left + box.width / 2,
        clientY: box.top + box.height / 2,
      }),
    );
    await screen.fixture.whenStable();
    expect(inside(bench).places[0]?.spots).toEqual([
      [10, 20],
      [50, 50],
    ]);
    const field = screen.find<HTMLInputElement>('#place-spots');
    expect(field.value).toBe('10 20, 50 50');
    const read = spotsReader('Where', 2);
    expect(read('1 2; 3 4').value).toEqual([
      [1, 2],
      [3, 4],
    ]);
    for (const bad of ['1', '1 101', '1 2, 3 4, 5 6', 'a b']) expect(() => read(bad)).toThrowError(InputError);
  });

  it('what nobody has placed lies round the edge, each in a place of its own', () => {
    const all = Array.from({ length: 14 }, (_, i) =>
      roundTheEdge(i, 14)
        .map((v) => v.toFixed(3))
        .join(' '),
    );
    expect(new Set(all).size).toBe(14);
    for (const one of all)
      for (const at of one.split(' ').map(Number)) {
        expect(at).toBeGreaterThanOrEqual(0);
        expect(at).toBeLessThanOrEqual(100);
      }
  });
});

describe('what the build sheet says of it', () => {
  it('every pair with its teeth and hours, and nothing of a box that nobody described', async () => {
    const bench = openBench(boxed());
    const input = { build: bench.build(), derived: bench.derived(), systems: ['metric'] } as unknown as PaperInput;
    const said = JSON.stringify(paper.why?.(input));
    for (const teeth of TEETH) expect(said).toContain(teeth);
    expect(said).toContain('can fit');
    expect(JSON.stringify(paper.why?.({ ...input, build: geared() }))).toBe('[]');
  });
});

describe('what is in it', () => {
  it('pieces are added, moved, changed and taken out; a hub that goes takes its track', async () => {
    const bench = openBench(
      boxed((build) => {
        if (!build.box) return;
        build.box.drum = {
          ...{
            radius: entryOf(28, 'mm'),
            slop: entryOf(0.2, 'mm'),
            depth: entryOf(3, 'mm'),
            period: null,
            detents: [0],
          },
          tracks: [
            {
              hub: 'hub1',
              points: [
                [0, 0],
                [10, 0],
              ],
            },
          ],
        };
      }),
    );
    const screen = await open('inside');
    const pieces = () => inside(bench).shafts.driven.pieces;
    const before = pieces().length;
    await screen.click('Add a piece to the driven shaft');
    expect(pieces().at(-1)?.kind).toBe('spacer');
    await screen.click('Spacer nearer to the shoulder');
    expect(pieces().at(-2)?.kind).toBe('spacer');
    await screen.click('Remove Hub');
    expect(pieces().length).toBe(before);
    expect(inside(bench).drum).toBeNull();
    expect(bench.derived()?.findings.some(({ id }) => id === 'box.pair.p1.shafts')).toBeTrue();
  });

  it('reverse comes with its idler; a collar parts a shaft and asks what closes the pieces before it', async () => {
    const bench = openBench(boxed());
    const screen = await open('inside');
    const type = async (id: string, text: string): Promise<void> => {
      const field = screen.find<HTMLInputElement>(`#${id}`);
      field.value = text;
      field.dispatchEvent(new Event('input', { bubbles: true }));
      await screen.fixture.whenStable();
      field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
      await screen.fixture.whenStable();
    };
    const gears = bench.build()?.gearbox.gears.length;
    await type('box-reverse', '27/13');
    expect(inside(bench).pairs.some(({ idler }) => idler !== null)).toBeFalse();
    await type('box-reverse', '27/15/13');
    const reverse = inside(bench).pairs.at(-1);
    expect([reverse?.driver, reverse?.driven, reverse?.idler]).toEqual([13, 27, 15]);
    expect(bench.build()?.gearbox.gears.length).toBe(gears);
    await type(`box-idler-${reverse?.id}`, '18');
    expect(inside(bench).pairs.at(-1)?.idler).toBe(18);
    await screen.click('Add a piece to the driven shaft');
    await screen.click('Spacer');
    const kind = screen.find<HTMLSelectElement>('#box-piece-kind');
    kind.value = 'collar';
    kind.dispatchEvent(new Event('change', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(inside(bench).shafts.driven.before?.closed).toBe('nut');
    expect(bench.build()?.assumed).toContain('box.shafts.driven.before');
    await type('box-before-length-driven', '44 mm');
    expect(inside(bench).shafts.driven.before?.length.typed).toBe('44 mm');
    await screen.click('Remove Collar');
    expect(inside(bench).shafts.driven.before).toBeNull();
    await screen.click('Remove Reverse');
    expect(inside(bench).pairs.some(({ idler }) => idler !== null)).toBeFalse();
  });

  it('another tooth count is another gear in both places', async () => {
    const bench = openBench(boxed());
    const screen = await open('inside');
    const field = screen.find<HTMLInputElement>('#box-driven-p1');
    field.value = '37';
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await screen.fixture.whenStable();
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await screen.fixture.whenStable();
    expect(typed(bench)[0]).toBe('37/14');
  });

  it('is kept in the library, and taken from it into another build', async () => {
    const bench = openBench(boxed());
    const add = spyOn(TestBed.inject(Library), 'add');
    const screen = await open('inside');
    await screen.click('Keep this box in the library');
    const [spec] = add.calls.mostRecent().args;
    expect(spec).toEqual(jasmine.objectContaining({ kind: 'gearbox', inside: bench.build()?.box ?? null }));
  });
});
