import { newBuild } from '../start/new-build';
import type { Axle } from '../document/schema';
import type { InForce, Readings } from '../frame/readings';
import { newAxleSpec } from '../library/new-spec';
import { newWork } from '../plan/new-work';
import { partStates } from './index';
import { INSPECTED, inspectedParts } from './parts';
import { wholeJob } from './whole-job';
import { partDecided, partDonor, partFound, partPhoto } from './readings';

function axleOf(change: (axle: Axle) => unknown = () => undefined): Axle {
  const axle = newBuild('Test').axles.rear;
  if (!axle) throw new Error('no axle');
  axle.identity = newAxleSpec('Test', 'integral-head-shim', 'measured');
  axle.work = newWork('overhaul', 'plain');
  change(axle);
  return axle;
}
const inForce = (subject: InForce['subject'], value: InForce['value']): InForce => ({
  kind: 'reading',
  id: 'd0000000-0000-4000-8000-000000000001',
  at: '2026-11-26T08:00:00.000Z',
  who: '',
  subject,
  value,
  state: {},
  instrument: 'By eye',
  seq: 0,
  earlier: [],
});
const readings = (...all: readonly (readonly [string, InForce])[]): Readings => new Map(all);
const keys = { axle: 'rear' as const, part: 'races' };
const found = (text: string) => [partFound.key(keys), inForce(partFound.of(keys), { of: 'text', text })] as const;
const decided = (choice: string) =>
  [partDecided.key(keys), inForce(partDecided.of(keys), { of: 'choice', choice })] as const;
const races = (...all: readonly (readonly [string, InForce])[]) =>
  partStates('rear', axleOf(), readings(...all)).find(({ id }) => id === 'races');

// Findings of common practice, no published source.
describe('parts that are looked at', () => {
  it('every part has one finding that is good, and each that is not says what it means', () => {
    for (const { id, findings } of INSPECTED) {
      expect(findings.filter(({ verdict }) => verdict === 'fits').length)
        .withContext(id)
        .toBe(1);
      for (const { found: what, means } of findings) expect(means).withContext(`${id} ${what}`).not.toBe('');
      expect(new Set(findings.map(({ found: what }) => what)).size)
        .withContext(id)
        .toBe(findings.length);
    }
    expect(new Set(INSPECTED.map(({ id }) => id)).size).toBe(INSPECTED.length);
  });

  it('are those that the axle has', () => {
    const ids = (axle: Axle) => inspectedParts(axle).map(({ id }) => id);
    expect(ids(axleOf())).toContain('clips');
    expect(
      ids(axleOf(({ identity }) => identity && (identity.retention = { value: 'flange', origin: 'measured' }))),
    ).not.toContain('clips');
    const electric = ids(axleOf((axle) => (axle.identity = newAxleSpec('E', 'electric-reduction', 'measured'))));
    for (const gone of ['ring-and-pinion', 'caps', 'holes', 'flange']) expect(electric).not.toContain(gone);
    expect(electric).toContain('races');
  });

  it('are not judged before somebody has decided; what runs on is judged by what was found', () => {
    expect(races()?.verdict).toBe('not-yet');
    expect(races(found('pitted'))?.verdict).toBe('not-yet');
    expect(races(found('pitted'), decided('run-on'))?.verdict).toBe('stop');
    expect(races(found('frosted'), decided('run-on'))?.verdict).toBe('watch');
    expect(races(found('good'), decided('run-on'))?.verdict).toBe('fits');
    expect(races(found('something of its own'), decided('run-on'))?.verdict).toBe('watch');
    expect(races(decided('run-on'))?.verdict).toBe('fits');
    expect(races(found('pitted'), decided('replace'))?.verdict).toBe('fits');
  });

  // Pitted inner races, borrowed ones polished: a donor part has findings of its own (common practice).
  it('of a donor are judged by what was found on the donor, and wait until somebody has looked', () => {
    const donor = (text: string) => [partDonor.key(keys), inForce(partDonor.of(keys), { of: 'text', text })] as const;
    const of = (...more: readonly (readonly [string, InForce])[]) =>
      races(found('pitted'), decided('donor'), ...more)?.verdict;
    expect(of()).toBe('not-yet');
    expect(of(donor('pitted'))).toBe('stop');
    expect(of(donor('frosted'))).toBe('watch');
    expect(of(donor('good'))).toBe('fits');
    expect(of(donor('polished by somebody'))).toBe('watch');
    // What is said of a donor part is nothing where the own one runs on.
    expect(races(found('good'), decided('run-on'), donor('pitted'))?.verdict).toBe('fits');
  });

  it('carry their photos and what the finding means', () => {
    const photo = [
      partPhoto.key(keys),
      inForce(partPhoto.of(keys), { of: 'photos', photos: ['a'.repeat(64)] }),
    ] as const;
    const state = races(found('spun'), photo);
    expect(state?.photos).toEqual(['a'.repeat(64)]);
    expect(state?.means?.means).toContain('takes the preload');
  });
});

// An overhaul kit weeks away can lose to a complete unit on the shelf: common practice, no published source.
describe('overhaul or a complete unit, over the whole job', () => {
  const part = (id: string, price: number | null, promised: string | null, state: 'here' | 'ordered' = 'ordered') => ({
    id,
    name: id,
    count: 1,
    state,
    supplier: '',
    price,
    promised,
    number: '',
  });
  const until: Readonly<Record<string, number>> = { '2026-12-06': 10, '2026-11-01': -25 };
  const judge = (
    parts: ReturnType<typeof part>[],
    complete: { price: number | null; days: number | null; hours?: number | null },
    hands: { leftH: number; rate: number | null } = { leftH: 8, rate: null },
  ) => {
    const work = { ...newWork('overhaul', 'plain'), parts, complete: { hours: null, ...complete } };
    return wholeJob(
      work,
      partStates('rear', axleOf(), readings(found('pitted'), decided('replace'))),
      hands,
      (day) => until[day] ?? NaN,
    );
  };

  it('what is sooner and not dearer wins', () => {
    const parts = [part('kit', 300, '2026-12-06'), part('oil', 20, null, 'here')];
    expect(judge(parts, { price: 900, days: 20 })).toEqual(
      jasmine.objectContaining({ choice: 'overhaul', price: 320, days: 10, replaced: ['Bearing races'] }),
    );
    expect(judge(parts, { price: 250, days: 2 }).choice).toBe('replace');
    expect(judge(parts, { price: 250, days: 2 }).reasons[0]).toContain('8 days before the last part');
  });

  it('one sooner and the other cheaper is asked; so is what nobody has said', () => {
    const parts = [part('kit', 300, '2026-12-06')];
    expect(judge(parts, { price: 900, days: 2 }).choice).toBe('ask');
    expect(judge(parts, { price: null, days: 2 }).reasons).toEqual(['Nobody has asked what a complete unit costs.']);
    expect(judge(parts, { price: 250, days: null }).choice).toBe('ask');
    expect(judge([part('kit', null, '2026-12-06')], { price: 900, days: 20 }).choice).toBe('ask');
    expect(judge([part('kit', 300, null)], { price: 900, days: 20 }).days).toBeNull();
    const late = judge([part('kit', 300, '2026-11-01')], { price: 900, days: 20 });
    expect(late.days).toBeNull();
    expect(late.choice).toBe('ask');
    expect(late.reasons[0]).toBe('A part is past its promised day.');
  });

  it('the same day and the same price: the overhaul, and both are said', () => {
    const parts = [part('kit', 300, '2026-12-06')];
    const even = judge(parts, { price: 300, days: 10 });
    expect(even.choice).toBe('overhaul');
    expect(even.reasons).toEqual([
      'Both in 10 days.',
      'Both cost the same.',
      'Hours are not counted: nobody has said what one costs.',
    ]);
    expect(judge(parts, { price: 300, days: 9 }).choice).toBe('replace');
    expect(judge(parts, { price: 301, days: 10 }).reasons[1]).toBe('The parts cost less.');
  });

  // Worked: parts 300 and 8 h at 60 are 780; a unit at 600 and 2 h is 720.
  it('hours with hands on it turn it, where they are priced', () => {
    const parts = [part('kit', 300, '2026-12-06')];
    const dear = { price: 600, days: 10, hours: 2 };
    expect(judge(parts, dear).choice).toBe('overhaul');
    const priced = judge(parts, dear, { leftH: 8, rate: 60 });
    expect(priced.labour).toEqual({ overhaul: 480, complete: 120 });
    expect(priced.choice).toBe('replace');
    expect(priced.reasons).toEqual([
      'Both in 10 days.',
      'A complete unit costs less.',
      'Hours with hands on it are counted.',
    ]);
    expect(judge(parts, dear, { leftH: 3, rate: 60 }).reasons[1]).toBe('The overhaul costs less.');
    const unsaid = judge(parts, { ...dear, hours: null }, { leftH: 8, rate: 60 });
    expect(unsaid.labour).toBeNull();
    expect(unsaid.reasons[2]).toBe('Hours are not counted: nobody has said how many a complete unit takes.');
  });

  it('all parts here: nothing is waited for', () => {
    const here = judge([part('kit', 300, null, 'here')], { price: 900, days: 1 });
    expect(here.days).toBe(0);
    expect(here.choice).toBe('overhaul');
    expect(here.reasons[0]).toBe('Parts are here 1 day before a complete unit.');
    expect(judge([], { price: 0, days: 0 }).price).toBe(0);
  });
});
