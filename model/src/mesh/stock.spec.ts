import { entryOf, type Entry } from '@hot-spline/core';
import fc from 'fast-check';
import { readingsInForce } from '../assembly/derive';
import type { LedgerEntry, Reading } from '../frame/readings';
import type { ReadingValue } from '../frame/values';
import { newShimBox } from '../library/new-spec';
import { assembled, spacerIn } from './readings';
import { freeIn, holdingsOf, requireInStock, takenFrom, type Drawer, type Holding } from './stock';

const DRAWER = '11111111-1111-4111-8111-111111111111';
const mm = (value: number): Entry => entryOf(value, 'mm');
let ids = 0;
const written = () => ({
  id: `00000000-0000-4000-8000-${String(++ids).padStart(12, '0')}`,
  at: '2026-11-26T08:00:00.000Z',
  who: '',
});

function assembly(number: number, pinion: readonly number[], sides: readonly number[] = []): Reading {
  const value: ReadingValue = {
    of: 'assembly',
    pinion: pinion.map(mm),
    left: sides.map(mm),
    right: [],
    leftNotches: 0,
    rightNotches: 0,
    ...(number === 0 ? {} : { drawers: [DRAWER] }),
  };
  const subject = assembled.of({ axle: 'rear', assembly: String(number) });
  return { kind: 'reading', ...written(), subject, value, state: {}, instrument: 'Micrometer' };
}

const drawer = (pieces: readonly (readonly [thickness: number, count: number])[]): Drawer => ({
  id: DRAWER,
  spec: newShimBox(
    'Head shims',
    'pinion-head',
    pieces.map(([thickness, count]) => ({ thickness: mm(thickness), count, origin: 'measured' as const })),
  ),
});
const held = (...ledger: LedgerEntry[]): readonly Holding[] => holdingsOf(readingsInForce(ledger));

describe('stock by seat', () => {
  it('what is in is out of the drawer; the next assembly gives it back', () => {
    const box = drawer([
      [0.5, 2],
      [0.7, 1],
    ]);
    const free = (...ledger: LedgerEntry[]) => freeIn(box, takenFrom([box], held(...ledger))).map((row) => row.free);
    const first = assembly(1, [0.5, 0.7]);
    expect(free()).toEqual([2, 1]);
    expect(free(first)).toEqual([1, 0]);
    expect(free(first, assembly(2, [0.5, 0.5]))).toEqual([0, 1]);
  });

  it('voiding an assembly takes its pieces out again, and those of before are in', () => {
    const [first, second] = [assembly(1, [0.7]), assembly(2, [0.5])];
    const undone: LedgerEntry = { kind: 'void', ...written(), voids: second.id, reason: 'misread' };
    expect(held(first, second, undone)).toEqual([{ axle: 'rear', drawers: [DRAWER], piecesMm: [0.7] }]);
  });

  it('pieces that came with the axle are its own; one that no drawer holds came from elsewhere', () => {
    const box = drawer([[0.5, 1]]);
    expect(held(assembly(0, [0.5]), assembly(1, [0.5, 0.5]))[0]?.piecesMm).toEqual([0.5]);
    expect(freeIn(box, takenFrom([box], held(assembly(1, [0.61]))))).toEqual([{ mm: 0.5, free: 1 }]);
    expect(held(assembly(0, [0.5]), assembly(1, [0.5]))).toEqual([]);
  });

  it('of two drawers that hold a piece, it comes out of the one where it is free', () => {
    const OTHER = '22222222-2222-4222-8222-222222222222';
    const [one, two] = [drawer([[0.5, 1]]), { ...drawer([[0.5, 2]]), id: OTHER }];
    const both: Holding = { axle: 'rear', drawers: [DRAWER, OTHER], piecesMm: [0.5, 0.5] };
    const taken = takenFrom([one, two], [both]);
    expect([taken.get(DRAWER), taken.get(OTHER)]).toEqual([[1], [1]]);
    const mine: Holding = { axle: 'front', drawers: [DRAWER, OTHER], piecesMm: [0.5] };
    expect(() => requireInStock([one, two], [mine], [], [both])).not.toThrow();
    expect(() => requireInStock([one, two], [mine], [], [both, mine])).toThrowError(/are free/);
  });

  it('a spacer that went in does not come back', () => {
    const spacer = (n: string): Reading => ({
      kind: 'reading',
      ...written(),
      subject: spacerIn.of({ axle: 'rear', spacer: n, drawer: DRAWER }),
      value: { of: 'number', counts: 'one', entries: [mm(42)] },
      state: {},
      instrument: '',
    });
    const box = drawer([[42, 3]]);
    expect(freeIn(box, takenFrom([box], held(spacer('1'), spacer('2'))))).toEqual([{ mm: 42, free: 1 }]);
  });

  it('refuses by drawer and piece what is in another axle', () => {
    const box = drawer([[0.5, 1]]);
    const mine = held(assembly(1, [0.5]));
    expect(() => requireInStock([box], mine, [], [])).not.toThrow();
    expect(() => requireInStock([box], mine, [], mine)).toThrowError(
      /1 × 0.5 mm more out of “Head shims”, where 0 of 1 are free/,
    );
    // What it holds already is not asked for again.
    expect(() => requireInStock([box], mine, mine, mine)).not.toThrow();
  });

  it('never goes below nothing, whatever is fitted and taken out where refusals are heeded', () => {
    const thicknesses = [0.3, 0.4, 0.5];
    const fitting = fc.record({
      build: fc.integer({ min: 0, max: 2 }),
      pieces: fc.array(fc.constantFrom(...thicknesses), { maxLength: 4 }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 3, maxLength: 3 }),
        fc.array(fitting, { maxLength: 25 }),
        (counts, fittings) => {
          const box = drawer(thicknesses.map((one, i) => [one, counts[i] ?? 0]));
          const ledgers: Reading[][] = [[], [], []];
          let refused = 0;
          for (const { build, pieces } of fittings) {
            const own = ledgers[build] as Reading[];
            const next = [...own, assembly(own.length + 1, pieces)];
            const others = ledgers.flatMap((one, i) => (i === build ? [] : held(...one)));
            try {
              requireInStock([box], held(...next), held(...own), others);
              ledgers[build] = next;
            } catch {
              refused++;
            }
          }
          const taken = takenFrom(
            [box],
            ledgers.flatMap((one) => held(...one)),
          );
          const free = freeIn(box, taken);
          // Each piece is in the drawer or in one axle.
          const fitted = ledgers.flatMap((one) => held(...one).flatMap(({ piecesMm }) => piecesMm)).length;
          expect(free.every((row) => row.free >= 0)).toBeTrue();
          expect(free.reduce((sum, row) => sum + row.free, 0) + fitted).toBe(counts.reduce((a, b) => a + b, 0));
          expect(refused).toBeLessThanOrEqual(fittings.length);
        },
      ),
      { numRuns: 150 },
    );
  });
});
