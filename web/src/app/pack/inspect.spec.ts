import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench, plateOf } from '../../testing/harness';
import { Outbox } from '../state/outbox';
import { readBand } from './band';
import { editCondition } from './condition';
import { InspectTab } from './inspect-tab';
import { PackSheet } from './pack-sheet';
import { readDay, readOffer } from './overhaul-readers';
import { readSpringPoints } from './spring-points';

const jpeg = async (): Promise<File> => {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [2400, 1200];
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  return new File([blob ?? ''], 'plate.png', { type: 'image/png' });
};

async function offer(screen: Screen<unknown>, file: File): Promise<void> {
  const input = screen.find<HTMLInputElement>('input[type=file]');
  const list = new DataTransfer();
  list.items.add(file);
  input.files = list.files;
  input.dispatchEvent(new Event('change'));
  await screen.fixture.whenStable();
  await screen.until(() => !screen.text.includes('Keeping'));
}

describe('inspecting the pieces', () => {
  it('what is seen on a piece is kept with it, and judged', async () => {
    const bench = openBench();
    const screen = await Screen.of(InspectTab);
    await screen.click('Look at left 2 friction');
    await screen.click('blue');
    await screen.click('scored');
    await screen.type('Note', 'band near the outside');
    const { condition } = plateOf(bench).packs.left.members[1] ?? {};
    expect(condition).toEqual({ colour: 'blue', damage: ['scored'], note: 'band near the outside', photos: [] });
    expect(bench.derived()?.findings.find(({ id }) => id === 'pack.inspect.rear.watch')?.place.field).toMatch(
      /^inspect-left-/,
    );
    await screen.click('cracked');
    expect(screen.find('.advice strong').textContent).toBe('Ask for prices');
    await screen.type('Kit: price; days', '340; 21');
    await screen.type('Complete unit: price; days', '1150; 0');
    await screen.type('Needed in, days', '10');
    expect(screen.find('.advice strong').textContent).toBe('Replace');
    expect(screen.text).toContain('too late');
  });

  it('a condition that says nothing any more is none', async () => {
    const bench = openBench();
    const screen = await Screen.of(InspectTab);
    await screen.click('Look at right case wall');
    await screen.click('straw');
    expect(plateOf(bench).packs.right.caseWall.condition?.colour).toBe('straw');
    await screen.click('straw');
    expect(plateOf(bench).packs.right.caseWall.condition).toBeNull();
    const of = { condition: null };
    editCondition(of, () => undefined);
    expect(of.condition).toBeNull();
  });

  it('a photo is made small, kept first, and then named on the piece', async () => {
    const bench = openBench();
    const put: (readonly [string, string])[] = [];
    spyOn(TestBed.inject(Outbox), 'putPhoto').and.callFake(async (id, blob) => {
      put.push([id, blob.type]);
      const picture = await createImageBitmap(blob);
      expect([picture.width, picture.height]).toEqual([1600, 800]);
    });
    const screen = await Screen.of(InspectTab);
    await screen.click('Look at left 1 steel');
    await offer(screen, await jpeg());
    const [photo] = plateOf(bench).packs.left.members[0]?.condition?.photos ?? [];
    expect(put).toEqual([[photo ?? '', 'image/jpeg']]);
    expect(screen.all('img').length).toBe(1);
    await screen.click('Take the photo off');
    expect(plateOf(bench).packs.left.members[0]?.condition).toBeNull();
  });

  it('a photo stays with the piece that it was taken of, when another one is chosen meanwhile', async () => {
    const bench = openBench();
    let keep: () => void = () => undefined;
    let asked = false;
    spyOn(TestBed.inject(Outbox), 'putPhoto').and.callFake(() => {
      asked = true;
      return new Promise((resolve) => (keep = resolve));
    });
    const screen = await Screen.of(InspectTab);
    await screen.click('Look at left 1 steel');
    const offered = offer(screen, await jpeg());
    await screen.click('Look at left 2 friction');
    await screen.until(() => asked);
    keep();
    await offered;
    const [first, second] = plateOf(bench).packs.left.members;
    expect(first?.condition?.photos.length).toBe(1);
    expect(second?.condition).toBeNull();
  });

  it('a photo that could not be kept, or is none, is said and not named', async () => {
    const bench = openBench();
    spyOn(TestBed.inject(Outbox), 'putPhoto').and.rejectWith(new Error('no room, and no network'));
    const screen = await Screen.of(InspectTab);
    await screen.click('Look at left 1 steel');
    await offer(screen, await jpeg());
    expect(screen.find('.caution').textContent).toContain('was not kept');
    await offer(screen, new File(['text'], 'notes.txt'));
    expect(screen.find('.caution').textContent).toContain('“notes.txt” is no picture');
    expect(plateOf(bench).packs.left.members[0]?.condition).toBeNull();
  });

  it('a recheck gets its day and its reason', async () => {
    const bench = openBench();
    const screen = await Screen.of(InspectTab);
    await screen.type('Recheck on', '2020-01-31');
    await screen.type('What to recheck', 'breakaway');
    expect(plateOf(bench).recheck).toEqual({ on: '2020-01-31', why: 'breakaway' });
    expect(bench.derived()?.findings.find(({ id }) => id === 'pack.recheck.rear')?.verdict).toBe('watch');
    await screen.type('Recheck on', '');
    expect(plateOf(bench).recheck).toBeNull();
  });
});

describe('other kinds of member', () => {
  it('are added from the list where they belong, and edited', async () => {
    const bench = openBench();
    const screen = await Screen.of(PackSheet);
    const add = async (kind: string): Promise<void> => {
      const box = screen.find<HTMLSelectElement>('select[aria-label="Add another piece left"]');
      box.value = kind;
      box.dispatchEvent(new Event('change'));
      await screen.fixture.whenStable();
    };
    await add('ring');
    expect(plateOf(bench).packs.left.members.map(({ kind }) => kind)).toEqual([
      'eared',
      'splined',
      'eared',
      'splined',
      'eared',
      'ring',
      'shim',
      'spring',
    ]);
    await add('coils');
    await screen.type('Rate of one coil', '50 N/mm');
    await screen.type('Coils side by side', '6');
    const coils = plateOf(bench).packs.left.members.at(-1);
    expect(coils?.kind === 'coils' && [coils.count, coils.rate.typed]).toEqual([6, '50 N/mm']);
    await add('s-spring');
    await screen.type('Measured: height force; height force', '25 mm 900 N; 24 mm 800 N');
    expect(screen.said('Measured: height force; height force')).toContain('must hold more');
    await screen.type('Measured: height force; height force', '25 mm 900 N; 24 mm 1300 N');
    const spring = plateOf(bench).packs.left.members.at(-1);
    expect(spring?.kind === 's-spring' && spring.points.map(({ force }) => force.value)).toEqual([900, 1300]);
  });

  it('a lined face changes the interfaces', async () => {
    const bench = openBench(plateBuild());
    const screen = await Screen.of(PackSheet, { tab: 'springs' });
    const before = bench.derived()?.axles.rear?.pack?.left.interfaces ?? 0;
    await screen.choose('End faces, left', 'both');
    expect(bench.derived()?.axles.rear?.pack?.left.interfaces).toBe(before + 1);
    await screen.type('Side-gear backlash', '0.1 - 0.18 mm');
    expect(plateOf(bench).sideGearBacklash).toEqual({ low: entryOf(0.1, 'mm'), high: entryOf(0.18, 'mm') });
  });
});

describe('readers of the inspection', () => {
  it('offers, days, bands and points: what is meant, and what is refused', () => {
    expect(readOffer('340; 12').value).toEqual({ price: 340, leadDays: 12 });
    expect(readOffer(' ').value).toBeNull();
    for (const bad of ['340', '340 12', 'x; 2', '1; 9999'])
      expect(() => readOffer(bad))
        .withContext(bad)
        .toThrow();
    const today = new Date(2026, 10, 25, 23, 30);
    expect(readDay('in 30 days', today).value).toBe('2026-12-25');
    expect(readDay('2026-11-25', today).said).toBe('today');
    for (const bad of ['2026-02-30', 'soon', '25.12.2026'])
      expect(() => readDay(bad, today))
        .withContext(bad)
        .toThrow();
    expect(readBand('4 – 7 thou', 'metric').value).toEqual({ low: entryOf(4, 'thou'), high: entryOf(7, 'thou') });
    for (const bad of ['4', '7 – 4 thou', 'a – b', '1 – 2 – 3'])
      expect(() => readBand(bad, 'metric'))
        .withContext(bad)
        .toThrow();
    expect(readSpringPoints('24 1200', 'metric').value).toEqual([
      { height: { typed: '24', value: 24, unit: 'mm' }, force: { typed: '1200', value: 1200, unit: 'N' } },
    ]);
    for (const bad of ['', '24 mm', '24 mm 0 N', 'x y'])
      expect(() => readSpringPoints(bad, 'metric'))
        .withContext(bad)
        .toThrow();
  });
});
