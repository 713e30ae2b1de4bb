import { entryOf } from '@hot-spline/core';
import type { LedgerEntry } from '../frame/readings';
import { assembled, carrierTorque, caseGrowth, sideSaid, zeroPlay } from '../mesh/readings';
import { newSetup } from '../mesh/new-setup';
import { entry, jobOf, look } from '../testing/bench';

const mm = (value: number) => entryOf(value, 'mm');
const sheet = <T>(value: T) => ({ value, origin: 'measured' as const, where: '' });
// Figures of our own invention.
const build = (adjusters: boolean) =>
  jobOf('ratio-swap', (axle) => {
    axle.setup = newSetup();
    if (!axle.identity) throw new Error('no spec');
    axle.identity.construction.value = adjusters ? 'integral-adjusters' : 'integral-head-shim';
    Object.assign(axle.identity.sheet, {
      carrierPreload: sheet(mm(0.2)),
      carrierTorque: sheet({ low: entryOf(1.1, 'N·m'), high: entryOf(1.9, 'N·m') }),
      caseGrowth: { value: { low: mm(0.1), high: mm(0.16) }, origin: 'memory', where: '' },
    });
  });
const inIt = entry(assembled.of({ axle: 'rear', assembly: '1' }), {
  of: 'assembly',
  pinion: [mm(1)],
  left: [mm(6.2)],
  right: [mm(5.9)],
  leftNotches: 0,
  rightNotches: 0,
});
const read = (subject: ReturnType<typeof zeroPlay.of>, value: number, unit: 'mm' | 'N·m', counts: 'one' | 'mean') =>
  entry(subject, { of: 'number', counts, entries: [entryOf(value, unit)] });
const side = (adjusters: boolean, ...ledger: LedgerEntry[]) =>
  look(build(adjusters), [inIt, ...ledger]).derived.preload.rear?.side ?? [];
const of = (method: string, ...ledger: LedgerEntry[]) => side(false, ...ledger).find((one) => one.method === method);

describe('side preload, every method side by side [operations §3]', () => {
  it('has the methods that the construction has, growth on any', () => {
    expect(side(false).map(({ method }) => method)).toEqual(['shims', 'carrier', 'total', 'growth', 'feel']);
    expect(side(true).map(({ method }) => method)).toEqual(['sequence', 'carrier', 'total', 'growth', 'feel']);
    expect(side(false).every(({ verdict }) => verdict === 'not-yet')).toBeTrue();
  });

  it('shims: what is in now less zero play, within 0.02 mm of the sheet', () => {
    // 6.2 + 5.9 − 11.9 = 0.2 [exact]
    const right = of('shims', read(zeroPlay.of({ axle: 'rear' }), 11.9, 'mm', 'mean'));
    expect(right?.value).toBeCloseTo(0.2, 9);
    expect(right?.verdict).toBe('fits');
    expect(of('shims', read(zeroPlay.of({ axle: 'rear' }), 11.85, 'mm', 'mean'))?.verdict).toBe('stop');
  });

  it('the carrier alone and the growth of the case against bands of their own; a weak one is told', () => {
    const carrier = (nm: number) => of('carrier', read(carrierTorque.of({ axle: 'rear' }), nm, 'N·m', 'mean'));
    expect([carrier(1.5)?.verdict, carrier(2)?.verdict, carrier(1)?.verdict]).toEqual(['fits', 'stop', 'stop']);
    const growth = of('growth', read(caseGrowth.of({ axle: 'rear' }), 0.12, 'mm', 'one'));
    expect([growth?.verdict, growth?.weak]).toEqual(['fits', true]);
  });

  it('a hand is never more than a watch, and what it calls loose stops Gate B', () => {
    const feel = (choice: string) => entry(sideSaid.of({ axle: 'rear', method: 'feel' }), { of: 'choice', choice });
    expect(of('feel', feel('right'))?.verdict).toBe('watch');
    expect(of('feel', feel('too loose'))?.verdict).toBe('stop');
    const { finding, step, derived } = look(build(false), [inIt, feel('too loose')]);
    expect(finding('preload.rear.side-feel')?.verdict).toBe('stop');
    expect(
      step('side-preload')
        ?.waits.filter(({ holds }) => holds)
        .map(({ what }) => what),
    ).toContain('Side preload by feel: not right');
    expect(derived.gates.rear?.B.needs.find(({ need }) => need === 'Side preload for good')?.met).toBeFalse();
  });

  it('its step is not done while nothing of it was read', () => {
    expect(look(build(false), [inIt]).step('side-preload')?.missing).toEqual(['side preload read by no method']);
    const grown = read(caseGrowth.of({ axle: 'rear' }), 0.12, 'mm', 'one');
    expect(look(build(false), [inIt, grown]).step('side-preload')?.missing).toEqual([]);
  });
});
