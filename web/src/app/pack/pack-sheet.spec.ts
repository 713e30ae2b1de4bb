import { readingEntry, type LedgerEntry, type Reading } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench, plateOf } from '../../testing/harness';
import { PackSheet } from './pack-sheet';

const readings = (ledger: readonly LedgerEntry[]): Reading[] =>
  ledger.filter((entry): entry is Reading => entry.kind === 'reading');

describe('the pack sheet', () => {
  it('shows both packs, adds, moves and removes pieces', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet);
    await screen.click('Add shim left');
    expect(plateOf(bench).packs.left.members.map((member) => member.kind)).toEqual([
      'eared',
      'splined',
      'eared',
      'splined',
      'eared',
      'shim',
      'shim',
      'spring',
    ]);
    expect(screen.text).toContain('left 7: shim');
    await screen.click('Inwards');
    expect(screen.text).toContain('left 6: shim');
    await screen.click('Remove');
    expect(plateOf(bench).packs.left.members.length).toBe(7);
    await screen.click(screen.find('[data-member="rf1"]'));
    await screen.click('Outwards');
    expect(
      plateOf(bench)
        .packs.right.members.slice(0, 3)
        .map((member) => member.id),
    ).toEqual(['rs1', 'rs2', 'rf1']);
    await screen.click('like left');
    expect(plateOf(bench).packs.right.members.map((member) => member.kind)).toEqual(
      plateOf(bench).packs.left.members.map((member) => member.kind),
    );
  });

  it('edits a piece: lining, size, name; a lining less is an interface less', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet);
    const count = () => bench.derived()?.figures.get('pack.rear.left.interfaces')?.value;
    expect(count()).toBe(4);
    await screen.click(screen.find('[data-member="lf1"]'));
    await screen.type('Catalogue thickness', '80 thou');
    await screen.type('Name', 'coated friction');
    const piece = plateOf(bench).packs.left.members[1];
    expect(piece).toEqual(
      jasmine.objectContaining({ label: 'coated friction', thickness: { typed: '80 thou', value: 80, unit: 'thou' } }),
    );
    await screen.click(screen.find('p-toggleswitch input'));
    expect(count()).toBe(2);
  });

  it('a size goes for one piece, for all of its kind, or for those that are marked; one undo takes it back', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet);
    const sizes = (kind: string) =>
      (['left', 'right'] as const).flatMap((side) =>
        plateOf(bench).packs[side].members.flatMap((m) => (m.kind === kind ? [m.thickness.typed] : [])),
      );
    const before = sizes('splined');
    await screen.click(screen.find('[data-member="lf1"]'));
    await screen.click(`all ${before.length} × friction`);
    await screen.type('Catalogue thickness', '81 thou');
    expect(sizes('splined')).toEqual(before.map(() => '81 thou'));
    bench.undo();
    expect(sizes('splined')).toEqual(before);
    screen.find('[data-member="rf1"]').dispatchEvent(new MouseEvent('click', { ctrlKey: true, bubbles: true }));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('2 marked');
    await screen.type('Catalogue thickness', '82 thou');
    expect(sizes('splined').filter((typed) => typed === '82 thou').length).toBe(2);
    await screen.click(screen.find('[data-member="ls1"]'));
    await screen.type('Catalogue thickness', '2.1 mm');
    expect(sizes('eared').filter((typed) => typed === '2.1 mm').length).toBe(1);
  });

  it('Tab goes from one piece to the next: what voids a reading is beside the way, and in the ledger on it', async () => {
    openBench();
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    await screen.type('2 friction left', '1.98');
    expect(screen.all('hs-void button').every((button) => button.tabIndex === -1)).toBeTrue();
    expect(screen.all('hs-void button').length).toBeGreaterThan(0);
  });

  it('what is measured alike is typed once and written for each', async () => {
    const bench = openBench(undefined, []);
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    await screen.type('All 4 frictions, alike or in a row', '1.99 mm');
    const written = readings(bench.ledger());
    expect(written.length).toBe(4);
    expect(new Set(written.map(({ subject }) => JSON.stringify(subject))).size).toBe(4);
    expect(screen.text).not.toContain('All 4 frictions');
  });

  it('a row that is typed is a reading of its own for each piece, in the order in which they lie', async () => {
    const bench = openBench(undefined, []);
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    const field = 'All 4 frictions, alike or in a row';
    await screen.type(field, '1.99 1.98 mm 1.97 2.00');
    const values = readings(bench.ledger()).map(({ value }) => (value.of === 'number' ? value.entries[0]?.typed : ''));
    expect(values.join()).toBe('1.99,1.98 mm,1.97,2.00');
    const before = bench.ledger().length;
    await screen.type('All 6 steels, alike or in a row', '1 2 3 4 5 6 7 mm');
    expect(screen.said('All 6 steels, alike or in a row')).toContain('too many');
    expect(bench.ledger().length).toBe(before);
  });

  it('turns a spring round and takes its sizes', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet);
    await screen.click(screen.find('[data-member="ld1"]'));
    await screen.type('Cone height h₀', '1.4 mm');
    await screen.type('Outside Ø', '102 mm');
    await screen.type('Inside Ø', '68 mm');
    await screen.click('out');
    const spring = plateOf(bench).packs.left.members.at(-1);
    expect(spring).toEqual(
      jasmine.objectContaining({ hollow: 'out', coneHeight: { typed: '1.4 mm', value: 1.4, unit: 'mm' } }),
    );
    await screen.click('Close');
    expect(screen.all('hs-member-editor').length).toBe(0);
    expect(screen.find('.caution').textContent).toContain('under compression fly');
  });

  it('writes a measured piece to the ledger and not to the specification', async () => {
    const bench = openBench();
    const before = structuredClone(plateOf(bench));
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    await screen.choose('Measured with', 'Caliper');
    await screen.type('2 friction left', '1.98');
    await screen.type('2 friction left', '1.97 mm');
    expect(plateOf(bench)).toEqual(before);
    expect(readings(bench.ledger()).map((entry) => [readingEntry(entry).typed, entry.instrument])).toEqual([
      ['1.98', 'Caliper'],
      ['1.97 mm', 'Caliper'],
    ]);
    // 3 × 2 + 1.97 + 2 + 0.8 = 10.77 [exact]
    expect(bench.derived()?.figures.get('pack.rear.left.height')?.value).toBeCloseTo(10.77, 9);
    expect(screen.said('2 friction left')).toContain('0.03 mm under');
  });

  it('takes a whole stack and a case depth', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    await screen.type('Whole stack right', '10.75');
    await screen.type('Case depth right', '12.70 mm');
    const right = bench.derived()?.axles.rear?.pack?.right;
    expect([right?.stackMm, right?.stackFrom, right?.caseDepthMm]).toEqual([10.75, 'stack', 12.7]);
    expect(right?.springInstalledMm).toBeCloseTo(1.95, 9);
  });

  it('asks what a bare number of the other system is meant to be, and writes what is said', async () => {
    const bench = openBench(plateBuild(), [], 'metric');
    const screen = await Screen.of(PackSheet, { tab: 'measure' });
    await screen.type('1 steel left', '0.0785');
    expect(readings(bench.ledger())).toEqual([]);
    await screen.click('0.0785 in');
    expect(readings(bench.ledger()).map(readingEntry)).toEqual([{ typed: '0.0785 in', value: 0.0785, unit: 'in' }]);
  });

  it('has no field for a breakaway before its hold is said, and keeps the two apart', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet, { tab: 'wrench' });
    expect(() => screen.field('Breakaway reading')).toThrowError(/no field/);
    const choose = async (hold: string) => {
      const radio = screen.find<HTMLInputElement>(`input[value="${hold}"]`);
      radio.checked = true;
      radio.dispatchEvent(new Event('change'));
      await screen.fixture.whenStable();
    };
    await choose('carrier-held');
    await screen.type('Breakaway reading', '30 N·m');
    await choose('other-wheel-held');
    expect(screen.field('Breakaway reading').value).toBe('');
    const [reading] = readings(bench.ledger());
    expect(reading?.subject).toEqual(
      jasmine.objectContaining({ what: 'breakaway', axle: 'rear', hold: 'carrier-held' }),
    );
    // the carrier-held reading is both packs together: 15 N·m each [exact]
    expect(screen.text).toMatch(/a pack holds\s*15\.0 N·m/);
    expect(screen.find('.caution').textContent).toContain('not on a jack');
  });

  it('changes target, depth, friction, wear model and preload', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet, { tab: 'springs' });
    await screen.type('Target stack height', '10.9');
    await screen.type('Tolerance ±', '2 thou');
    await screen.type('Friction, breaking away', '0.12');
    await screen.type('Case depth, left', '12.9 mm');
    await screen.choose('Plates press by', 'uniform-pressure');
    const plate = plateOf(bench);
    expect([
      plate.targetHeight.typed,
      plate.tolerance.typed,
      plate.frictionCoefficient.value,
      plate.packs.left.caseDepth.value,
      plate.wearModel,
    ]).toEqual(['10.9', '2 thou', 0.12, 12.9, 'uniform-pressure']);
    await screen.choose('Clamp force from', 'measured-force');
    await screen.type('Force at installed height', '500 lbf');
    expect(plateOf(bench).preload).toEqual({
      from: 'measured-force',
      force: { typed: '500 lbf', value: 500, unit: 'lbf' },
      acts: 'series',
    });
    expect(bench.derived()?.figures.get('pack.rear.slope')?.value).toBeNull();
  });

  it('refuses friction of nothing and a lining without width', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet, { tab: 'springs' });
    await screen.type('Friction, breaking away', '0');
    expect(screen.said('Friction, breaking away')).toContain('must be more than 0');
    await screen.type('Lining inside Ø', '120 mm');
    expect(plateOf(bench).frictionInnerDiameter.value).toBe(70);
  });

  it('says what to do where there are no packs', async () => {
    const build = plateBuild();
    if (build.axles.rear) build.axles.rear.unit.type = 'spool';
    openBench(build);
    const screen = await Screen.of(PackSheet);
    expect(screen.text).toContain('This axle has no clutch packs');
    expect(screen.text).toContain('Its unit is: Spool or welded');
  });

  it('opens the tab that a finding points to', async () => {
    openBench();
    expect((await Screen.of(PackSheet, { tab: 'measure', at: 'measure-left-ls1' })).all('hs-measure-tab').length).toBe(
      1,
    );
    expect((await Screen.of(PackSheet, { tab: 'wrench', at: 'breakaway-bench' })).all('hs-wrench-tab').length).toBe(1);
  });
});
