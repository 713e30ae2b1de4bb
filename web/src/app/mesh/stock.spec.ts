import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import {
  newSetup,
  newShimBox,
  setupSubjects,
  type Instrument,
  type LedgerEntry,
  type Reading,
  type SetUps,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Screen, keepSpecs, openBench, otherSetUps } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { InstrumentEditor } from '../library/instrument-editor';
import { libraryActions } from '../state/library-slice';
import { SetUpBearingEditor } from '../library/set-up-bearing-editor';
import { ShimBoxEditor } from '../library/shim-box-editor';
import { PreloadSheet } from '../preload/preload-sheet';
import type { Bench } from '../state/bench';
import { BaselineSheet } from './baseline-sheet';
import { CarrierSheet } from './carrier-sheet';
import { DepthSheet } from './depth-sheet';
import { Flank } from './flank';
import { MeshSheet } from './mesh-sheet';
import { packSums, planOf } from './next-assembly';
import { NOTHING_IN, SetUp } from './set-up';
import { CENTRED } from './patch';
import { SheetTab } from './sheet-tab';

const mm = (value: number) => entryOf(value, 'mm');
const piece = (value: number, count: number) => ({ thickness: mm(value), count, origin: 'measured' as const });
const DRAWER = '60000000-0000-4000-8000-000000000001';
const head = newShimBox('Head shims', 'pinion-head', [piece(0.5, 2), piece(0.6, 1)]);
const elsewhere = (...piecesMm: number[]): SetUps['holdings'] => [
  { build: '70000000-0000-4000-8000-000000000001', name: 'Other', axle: 'rear', drawers: [DRAWER], piecesMm },
];
const last = (bench: Bench): Reading => bench.ledger().at(-1) as LedgerEntry as Reading;

describe('stock on the bench', () => {
  it('what another build holds can’t be put in here; what is free is, and says its drawer', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1), 'metric', [otherSetUps(elsewhere(0.5, 0.5))]);
    keepSpecs(head);
    const screen = await Screen.of(CarrierSheet);
    await screen.type('Pinion shims', '0.5 mm + 0.6 mm');
    await screen.click('Put together: assembly 2');
    expect(bench.ledger().length).toBe(1);
    await screen.type('Pinion shims', '0.6 mm');
    await screen.click('Put together: assembly 2');
    expect(last(bench).value).toEqual(jasmine.objectContaining({ of: 'assembly', drawers: [DRAWER] }));
  });

  it('nothing is put together before the drawers are known: it would be taken out of none', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1), 'metric', [otherSetUps(elsewhere())]);
    const store = TestBed.inject(Store);
    store.dispatch(libraryActions.failed({ problem: 'away' }));
    store.dispatch(libraryActions.opened());
    const screen = await Screen.of(CarrierSheet);
    await screen.type('Pinion shims', '0.6 mm');
    await screen.click('Put together: assembly 2');
    expect(bench.ledger().length).toBe(1);
    keepSpecs(head);
    await screen.fixture.whenStable();
    await screen.click('Put together: assembly 2');
    expect(last(bench).value).toEqual(jasmine.objectContaining({ of: 'assembly', drawers: [DRAWER] }));
  });

  it('practice builds packs out of the same drawers and takes nothing out of them', () => {
    const build = { ...setUpBuild(), practice: { lesson: null, seed: 3 } };
    const bench = openBench(build, assemblyOf(1), 'metric', [otherSetUps(elsewhere(0.5, 0.5))]);
    keepSpecs(head);
    const setUp = TestBed.inject(SetUp);
    expect(setUp.stock().pinion.find(({ thicknessMm }) => thicknessMm === 0.5)?.count).toBe(2);
    expect(setUp.assemble({ ...NOTHING_IN, pinion: [mm(0.5)] }, 2)).toBeTrue();
    expect(last(bench).value).toEqual(jasmine.objectContaining({ drawers: [] }));
  });

  it('a depth is built from what is free, out of the drawer that was chosen', async () => {
    const bench = openBench(
      setUpBuild('integral-head-shim', { depth: { ...newSetup().depth, chart: mm(1.1) } }),
      [],
      'metric',
      [otherSetUps(elsewhere(0.5))],
    );
    const [, second] = keepSpecs(head, newShimBox('Thick ones', 'pinion-head', [piece(1.12, 1)]));
    const screen = await Screen.of(DepthSheet);
    expect(screen.text).toContain('From the drawer: 0.60 mm + 0.50 mm');
    await screen.choose('Pieces come from', second ?? '');
    expect(bench.axle()?.setup?.drawers.pinion).toBe(second ?? null);
    expect(screen.text).toContain('From the drawer: 1.12 mm');
    await screen.choose('Pieces come from', '');
    expect(bench.axle()?.setup?.drawers.pinion).toBeNull();
  });

  it('both sides are built from one drawer, the second from what the first left', () => {
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const mesh = bench.derived()?.mesh.rear;
    if (!mesh) throw new Error('no set-up');
    const sides = [3, 3.1, 2.9, 3.005].map((thicknessMm) => ({ thicknessMm, count: 1 }));
    const { left, right } = planOf(mesh, { pinionShimMm: 1, ringShiftMm: 0.1 }, { pinion: [], sides });
    expect(left.map(({ value }) => value).sort()).toEqual([3, 3.1]);
    expect(right.map(({ value }) => value).sort()).toEqual([2.9, 3.005]);
  });

  it('sums that no pack of the drawer makes are left out', () => {
    const sums = packSums(
      [0.5, 0.6].map((thicknessMm) => ({ thicknessMm, count: 1 })),
      [0.4, 1.2],
    );
    expect([...sums].sort()).toEqual([0.5, 0.6, 1.1]);
    expect(packSums([], [0, 1])).toEqual([]);
  });

  it('a spacer comes out of its drawer, and none is left at some time', async () => {
    const over = (step: string, nm: number): Reading => ({
      kind: 'reading',
      id: `80000000-0000-4000-8000-00000000000${step}`,
      at: '2026-01-02T03:04:05.000Z',
      who: '',
      subject: setupSubjects.pinionTorque.of({ axle: 'rear', spacer: '1', step, angle: entryOf(0, '°'), shims: [] }),
      value: { of: 'number', counts: 'mean', entries: [entryOf(nm, 'N·m')] },
      state: newSetup().state,
      instrument: 'Wrench',
    });
    const bench = openBench(setUpBuild(), [over('1', 4)]);
    keepSpecs(newShimBox('Spacers', 'spacer', [piece(42, 1)]));
    const screen = await Screen.of(PreloadSheet);
    expect(screen.text).toContain('1 left in the drawer');
    await screen.click('New spacer in');
    expect(last(bench).subject).toEqual({ what: 'spacer', axle: 'rear', spacer: '2', drawer: DRAWER });
    expect(screen.text).toContain('0 left in the drawer: order one');
  });
});

const indicator: Instrument = {
  kind: 'instrument',
  name: 'Dial indicator 0.02',
  reads: { of: 'length', from: mm(0), to: mm(5), resolution: mm(0.02), plusMinus: mm(0.06) },
  checked: '2020-01-01',
};

describe('instruments of the shop', () => {
  it('one too coarse for the band says so before it is used; one that is fine is written with each reading', async () => {
    const fine = { ...indicator, name: 'Fine one', reads: { ...indicator.reads, plusMinus: mm(0.005) } } as Instrument;
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const [coarse, good] = keepSpecs(indicator, fine);
    const screen = await Screen.of(BaselineSheet);
    await screen.choose('Backlash is read with', coarse ?? '');
    expect(screen.text).toContain('Cannot judge: ± 0.06 mm in a band of 0.10 mm');
    expect(
      bench.derived()?.findings.some(({ id, verdict }) => id === 'mesh.rear.gauge' && verdict === 'stop'),
    ).toBeTrue();
    await screen.choose('Backlash is read with', good ?? '');
    expect(screen.text).toContain('checked last on 2020-01-01');
    expect(bench.derived()?.findings.some(({ id }) => id === 'mesh.rear.gauge')).toBeFalse();
    const mesh = await Screen.of(MeshSheet);
    await mesh.type('Backlash, place 1 of 8', Array(8).fill('0.2').join('; '));
    expect(last(bench).instrument).toBe('Fine one');
  });

  it('are described in the library: what they read, how well, which hand', async () => {
    openBench();
    const screen = await Screen.of(InstrumentEditor, { spec: indicator, prefix: 'x' });
    let spec = indicator;
    screen.fixture.componentInstance.changed.subscribe((edit) => {
      spec = edit(spec);
      screen.fixture.componentRef.setInput('spec', spec);
    });
    await screen.type('Good to ±', '0.01 mm');
    expect(spec.reads.plusMinus.value).toBe(0.01);
    await screen.choose('It reads', 'tightening');
    await screen.choose('It works in', 'both');
    expect(spec.reads).toEqual(jasmine.objectContaining({ of: 'torque', use: 'tightening', hand: 'both' }));
    await screen.type('Checked last on', 'May');
    expect(screen.text).toContain('Checked last on is no day');
    await screen.type('Checked last on', '2026-05-02');
    expect(spec.checked).toBe('2026-05-02');
  });

  it('a set-up bearing and a drawer are described too', async () => {
    openBench();
    let bearing = { kind: 'set-up-bearing' as const, name: 'Honed', taller: mm(0), origin: 'measured' as const };
    const one = await Screen.of(SetUpBearingEditor, { spec: bearing, prefix: 'x' });
    one.fixture.componentInstance.changed.subscribe((edit) => (bearing = edit(bearing) as typeof bearing));
    await one.type('Taller than the final one by (− lower)', '-0.05 mm');
    expect(bearing.taller.value).toBe(-0.05);
    let drawer = head;
    const two = await Screen.of(ShimBoxEditor, {
      spec: head,
      prefix: 'y',
      fitted: [1, 2],
      where: 'Fitted in One rear.',
    });
    two.fixture.componentInstance.changed.subscribe((edit) => (drawer = edit(drawer)));
    expect(two.text).toContain('Fitted in One rear.');
    expect(two.text).toContain('2 fitted: count again');
    await two.choose('For', 'carrier');
    await two.type('Bore', '40 mm');
    expect([drawer.seat, drawer.bore?.value]).toEqual(['carrier', 40]);
  });
});

describe('the short ways', () => {
  it('another carrier carries the shims over by race to flange', async () => {
    const build = setUpBuild('integral-head-shim', { gears: 'used' });
    const bench = openBench(build, assemblyOf(0));
    const screen = await Screen.of(BaselineSheet);
    await screen.type('Old carrier, left race to flange', '60 mm');
    await screen.type('Old carrier, right race to flange', '70 mm');
    await screen.type('New carrier, left race to flange', '59.9 mm');
    await screen.type('New carrier, right race to flange', '72.3 mm');
    await screen.type('Master shim laid between, new', '2 mm');
    // 6 + 60 − (59.9 − 2) = 8.1; 6 + 70 − (72.3 − 2) = 5.7 [exact].
    expect(screen.text).toContain('Left 8.1');
    expect(screen.text).toContain('right 5.7');
    await screen.click('Put it in');
    expect(bench.axle()?.setup?.carryOver.newMaster?.value).toBe(2);
    const carrier = await Screen.of(CarrierSheet);
    expect(carrier.field('Left shims, behind the ring').value).toContain('8.1');
  });

  it('adjusters go step by step; a step taken back takes those after it along', async () => {
    openBench(setUpBuild('integral-adjusters'), assemblyOf(1));
    const screen = await Screen.of(CarrierSheet);
    const boxes = () => screen.all('.guided input') as HTMLInputElement[];
    boxes()[0]?.click();
    await screen.fixture.whenStable();
    boxes()[1]?.click();
    await screen.fixture.whenStable();
    expect(screen.all('.guided .done').length).toBe(2);
    expect(screen.find('.guided .next').textContent).toContain('Ring side in, until there is no backlash.');
    boxes()[0]?.click();
    await screen.fixture.whenStable();
    expect(screen.all('.guided .done').length).toBe(0);
  });

  it('a set-up bearing says the shim for the final one, and the library fills it in', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1));
    const [id] = keepSpecs({ kind: 'set-up-bearing', name: 'Honed', taller: mm(0.05), origin: 'measured' });
    const screen = await Screen.of(DepthSheet);
    await screen.choose('Take it from the library', id ?? '');
    const finding = bench.derived()?.findings.find((one) => one.id === 'mesh.rear.head-bearing');
    expect(finding?.say('metric').title.replace(/\s/g, ' ')).toContain('1.050 mm');
  });
});

describe('what is seen and confirmed', () => {
  it('the edges that a pattern runs off are said by keys and by touch', async () => {
    openBench(setUpBuild());
    const screen = await Screen.of(Flank, { name: 'f', flank: 'drive', value: CENTRED, band: { u: 0.3, v: 0.2 } });
    const seen: string[][] = [];
    screen.fixture.componentInstance.changed.subscribe(({ edges }) => seen.push([...edges]));
    const press = async (key: string): Promise<void> => {
      screen.find('#f').dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await screen.fixture.whenStable();
    };
    await press('t');
    await press('f');
    await press('t');
    screen.all('.edge')[0]?.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    expect(seen).toEqual([['toe'], ['toe', 'face'], ['face'], ['face', 'root']]);
  });

  it('a value that is confirmed is a decision in the ledger, with what was confirmed', async () => {
    const build = setUpBuild();
    const sheet = build.axles.rear?.identity?.sheet;
    if (!sheet?.backlash) throw new Error('no band');
    sheet.backlash = { ...sheet.backlash, origin: 'memory' };
    const bench = openBench(build);
    const screen = await Screen.of(SheetTab);
    await screen.choose('Where backlash is from', 'maker');
    expect(bench.ledger().at(-1)).toEqual(
      jasmine.objectContaining({
        kind: 'decision',
        about: 'Spec sheet, rear: backlash',
        decided: jasmine.stringContaining('0.15 mm – 0.25 mm, maker’s sheet'),
      }),
    );
    await screen.choose('Where backlash is from', 'guess');
    expect(bench.ledger().length).toBe(1);
  });

  it('a round read again says how far apart the two are', async () => {
    const bench = openBench(setUpBuild(), assemblyOf(1, { backlash: 0.2 }));
    const screen = await Screen.of(MeshSheet);
    await screen.type('Backlash, again from place 1', Array(8).fill('0.22').join('; '));
    expect(screen.text).toContain('read 2 times, means 0.02 mm apart');
    expect(bench.derived()?.mesh.rear?.job?.tries.length).toBe(2);
  });
});
