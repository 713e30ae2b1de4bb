import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { Store, provideState, provideStore } from '@ngrx/store';
import { buildSchema, deriveBuild, newPlateSpec, type ShimBox, newShimBox } from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench, plateOf } from '../../testing/harness';
import { editorFeature } from '../state/editor';
import { uiFeature } from '../state/ui';
import { addMember, mirrorLeft, moveMember } from './members';
import { libraryActions } from '../state/library-slice';
import { PackDrawing } from './pack-drawing';
import { ShimsTab, replaceShims } from './shims-tab';
import { SureTab } from './sure-tab';

const order = (plate: ReturnType<typeof newPlateSpec>, side: 'left' | 'right') =>
  plate.packs[side].members.map((m) => m.id);

describe('members of a pack', () => {
  it('are added where they belong, with an id of their own', () => {
    const plate = newPlateSpec();
    const steel = addMember(plate, 'left', 'eared');
    expect(order(plate, 'left')).toEqual(['ls1', 'lf1', 'ls2', 'lf2', 'ls3', steel.id, 'lz1', 'ld1']);
    const shim = addMember(plate, 'left', 'shim');
    expect(order(plate, 'left').indexOf(shim.id)).toBe(7);
    addMember(plate, 'right', 'spring');
    const ids = [...order(plate, 'left'), ...order(plate, 'right')];
    expect(new Set(ids).size).toBe(ids.length);
    const build = plateBuild();
    if (build.axles.rear) build.axles.rear.unit.plate = plate;
    expect(buildSchema.safeParse(build).success).toBeTrue();
  });

  it('move within their pack and no further', () => {
    const plate = newPlateSpec();
    expect(moveMember(plate, 'left', 0, 2)).toBeTrue();
    expect(order(plate, 'left').slice(0, 3)).toEqual(['lf1', 'ls2', 'ls1']);
    expect(moveMember(plate, 'left', 0, -1)).toBeFalse();
    expect(moveMember(plate, 'left', 0, 99)).toBeFalse();
  });

  it('mirror left to right, keeping the ids of the right pieces by kind', () => {
    const plate = newPlateSpec();
    addMember(plate, 'left', 'eared');
    moveMember(plate, 'left', 0, 1);
    mirrorLeft(plate);
    expect(plate.packs.right.members.map((m) => m.kind)).toEqual(plate.packs.left.members.map((m) => m.kind));
    expect(order(plate, 'right')).toEqual(jasmine.arrayContaining(['rs1', 'rs2', 'rs3', 'rf1', 'rf2', 'rz1', 'rd1']));
  });
});

describe('the pack drawing', () => {
  beforeEach(() => {
    TestBed.configureTestingModule({
      imports: [PackDrawing],
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(editorFeature),
        provideState(uiFeature),
        MessageService,
      ],
    });
  });

  async function draw(side: 'left' | 'right') {
    const fixture = TestBed.createComponent(PackDrawing);
    const packs = deriveBuild(plateBuild(), []).axles.rear?.pack;
    if (!packs) throw new Error('no pack');
    fixture.componentRef.setInput('side', side);
    fixture.componentRef.setInput('pack', packs[side]);
    fixture.componentRef.setInput('target', 10.8);
    fixture.componentRef.setInput('tolerance', 0.1);
    await fixture.whenStable();
    const plates = [...fixture.nativeElement.querySelectorAll('.plate')] as HTMLElement[];
    return { fixture, plates };
  }

  it('draws every piece to scale, mirrored on the left, with working interfaces lit', async () => {
    const { plates } = await draw('right');
    expect(plates.map((p) => p.dataset['member'])).toEqual(['rs1', 'rf1', 'rs2', 'rf2', 'rs3', 'rz1', 'rd1']);
    const width = (i: number) => Number.parseFloat(plates[i]?.style.width ?? '');
    expect(width(0)).toBeCloseTo(width(1), 6);
    // 2 mm of a 12.8 mm case depth on 276 px [exact]
    expect(width(0)).toBeCloseTo((276 * 2) / 12.8, 3);
    expect(plates.filter((p) => p.classList.contains('lit-inside')).length).toBe(4);
    const left = await draw('left');
    expect(left.plates.map((p) => p.dataset['member'])).toEqual(['ld1', 'lz1', 'ls3', 'lf2', 'ls2', 'lf1', 'ls1']);
  });

  it('moves with Alt and the arrows, outwards to the left in the left pack', async () => {
    const { fixture, plates } = await draw('left');
    const moves: { from: number; to: number }[] = [];
    fixture.componentInstance.moved.subscribe((move) => moves.push(move));
    plates.at(-1)?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', altKey: true }));
    expect(moves).toEqual([{ from: 0, to: 1 }]);
  });
});

describe('shims from stock', () => {
  const drawer: ShimBox = {
    ...newShimBox('Drawer'),
    pieces: [0.5, 0.7, 0.8, 0.9].map((value) => ({
      thickness: entryOf(value, 'mm'),
      count: 1,
      origin: 'measured' as const,
    })),
  };

  async function open() {
    const bench = openBench();
    const screen = await Screen.of(ShimsTab);
    TestBed.inject(Store).dispatch(
      libraryActions.loaded({
        specs: [{ id: '40000000-0000-4000-8000-000000000009', version: 1, archived: false, spec: drawer }],
      }),
    );
    await screen.fixture.whenStable();
    return { bench, screen };
  }

  it('takes the best pieces that exist for both packs, and each only once', async () => {
    const { bench, screen } = await open();
    // stacks are 3·2 + 2·2 + shim; target 10.8 wants 0.80 on both sides, and there is one of it [exact]
    const sides = () =>
      (['left', 'right'] as const).map((side) =>
        plateOf(bench)
          .packs[side].members.filter(({ kind }) => kind === 'shim')
          .map(({ thickness }) => thickness.value),
      );
    expect(sides()).toEqual([[0.8], [0.8]]);
    await screen.click('Put these in both packs');
    expect(sides().flat().sort()).toEqual([0.7, 0.8]);
    expect(screen.text).toContain('These are in the packs');
    bench.undo();
    expect(sides()).toEqual([[0.8], [0.8]]);
  });

  it('more in the drawer changes the answer at once', async () => {
    const { screen } = await open();
    expect(screen.text).toContain('Proven best of what is in the drawer');
    await screen.type('Add shims: thickness × how many', '0.8 mm × 1');
    expect(screen.text).toContain('These are in the packs');
    await screen.type('How many of 0.80\u00a0mm', '0');
    expect(screen.all('tr[data-side="left"] .big')[0]?.textContent).toMatch(/0\.[79]0/);
    for (const bad of ['thick', '-1 mm', '0', '1 mm × 99999']) {
      await screen.type('Add shims: thickness × how many', bad);
      expect(screen.said('Add shims: thickness × how many'))
        .withContext(bad)
        .toMatch(/Thickness|Count/);
    }
  });

  it('new shims get new ids and stand where the old one stood', () => {
    const build = plateBuild();
    const plate = build.axles.rear?.unit.plate;
    if (!plate) throw new Error('no plates');
    const before = plate.packs.left.members.map(({ id }) => id);
    replaceShims(plate, 'left', drawer, [0.5, 0.7]);
    const after = plate.packs.left.members;
    expect(after.map(({ kind }) => kind).slice(-3)).toEqual(['shim', 'shim', 'spring']);
    expect(after.filter(({ kind }) => kind === 'shim').every(({ id }) => !before.includes(id))).toBeTrue();
    expect(new Set(after.map(({ id }) => id)).size).toBe(after.length);
  });
});

describe('how sure', () => {
  it('draws both packs in the worker, once for one question', async () => {
    const bench = openBench();
    const screen = await Screen.of(SureTab);
    await screen.until(() => screen.text.includes('1,000,000 draws a pack'));
    expect(screen.all('section').length).toBe(2);
    // everything is catalogue here: the friction coefficient and the case depth move most
    expect(screen.all('section[data-side="left"] li .name')[0]?.textContent).toContain('friction coefficient');
    await new Promise((resolve) => setTimeout(resolve, 500));
    expect(screen.all('progress').length).withContext('not drawn again').toBe(0);
    bench.changePlate(
      (plate) => (plate.preload = { from: 'measured-force', force: entryOf(1200, 'N'), acts: 'series' }),
    );
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('no springs to work');
  });
});
