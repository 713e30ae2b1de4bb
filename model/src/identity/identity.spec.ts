import { newAxleSpec } from '../library/new-spec';
import { entryOf } from '@hot-spline/core';
import type { Build } from '../document/schema';
import { deriveBuild } from '../assembly/derive';
import { driftBuild } from '../testing/builds';
import type { AxleSpec } from '../library/schema';

const guess = 'guess' as const;

/** The drift build with a 41/10 in an axle that somebody has described. */
function described(change: Partial<AxleSpec> = {}, rest: Partial<NonNullable<Build['axles']['rear']>> = {}): Build {
  const { build } = driftBuild();
  const { rear } = build.axles;
  if (!rear) throw new Error('no rear axle');
  rear.finalDrive = { ring: 41, pinion: 10 };
  rear.identity = {
    ...newAxleSpec('Heron', 'drop-out', guess),
    ...change,
  };
  rear.carrier = '';
  rear.matchNumbers = { ring: '', pinion: '' };
  Object.assign(rear, rest);
  return build;
}

function finding(build: Build, id: string) {
  const found = deriveBuild(build, []).findings.find((one) => one.id === `identity.${id}.rear`);
  return found
    ? { verdict: found.verdict, field: found.place.field, rests: found.rests, ...found.say('metric') }
    : null;
}

/** All of it common practice, no published source; the thresholds are those of the axle's own description. */
describe('what the identified axle says', () => {
  it('nothing is known: look first', () => {
    const open = finding(described({}, { identity: null }), 'open');
    expect([open?.verdict, open?.field]).toEqual(['not-yet', 'axle-spec-rear']);
    expect(finding(described(), 'open')).toBeNull();
  });

  it('match numbers: a pair, not a pair, or half read', () => {
    const marks = (ring: string, pinion: string) => finding(described({}, { matchNumbers: { ring, pinion } }), 'match');
    expect(marks('', '')).toBeNull();
    expect(marks('K118', 'K118')?.verdict).toBe('fits');
    expect(marks('k 118', 'K  118')?.verdict).withContext('as stamped, not as written').toBe('fits');
    const wrong = marks('K118', 'K181');
    expect([wrong?.verdict, wrong?.title]).toEqual(['stop', 'Rear ring and pinion don’t match']);
    expect(wrong?.detail).toContain('Don’t fit them together');
    expect(marks('K118', '')?.detail).toBe('Only the ring is noted: read the other one too.');
    expect(marks('', 'K118')?.detail).toBe('Only the pinion is noted: read the other one too.');
  });

  it('left-hand ring bolts are said with the way that undoes them', () => {
    const bolts = (hand: 'left' | 'right') =>
      finding(described({ ringBolts: { value: { thread: '3/8-24', count: 10, hand }, origin: 'measured' } }), 'hand');
    expect(bolts('right')).toBeNull();
    const left = bolts('left');
    expect([left?.verdict, left?.detail]).toEqual(['watch', '10 × 3/8-24: clockwise undoes them.']);
  });

  const carriers = [
    { name: '3 series', fromRatio: 2.7, toRatio: 3.73, price: null, leadDays: null, origin: 'trade' as const },
    { name: '4 series', fromRatio: 4.1, toRatio: 5.13, price: null, leadDays: null, origin: 'trade' as const },
  ];

  it('the carrier takes a range of ratios, both ends included', () => {
    const fitted = (carrier: string) => finding(described({ carriers }, { carrier }), 'carrier');
    expect(fitted('4 series')).toEqual(
      jasmine.objectContaining({
        verdict: 'fits',
        title: 'Rear carrier takes 4.100',
        detail: '4 series: 4.1 to 5.13.',
      }),
    );
    const other = fitted('3 series');
    expect([other?.verdict, other?.title]).toEqual(['stop', 'Rear carrier, 3 series, does not take 4.100']);
    expect(other?.detail).toContain('Measure bearing seat to flange face first');
    const unknown = fitted('');
    expect([unknown?.verdict, unknown?.detail]).toEqual([
      'not-yet',
      '4.100 wants 4 series. Measure bearing seat to flange face.',
    ]);
  });

  it('a judgement rests on where the value was read, and a guess is said to be one', () => {
    const judged = (origin: 'maker' | 'measured' | 'trade' | 'guess') => {
      const build = described(
        { carriers: [{ name: '4 series', fromRatio: 3.92, toRatio: 6.5, price: null, leadDays: null, origin }] },
        { carrier: '4 series' },
      );
      const found = deriveBuild(build, []).findings.find(({ id }) => id === 'identity.carrier.rear');
      return [found?.rests, found?.say('metric').detail.includes('rests on a guess')];
    };
    expect(judged('trade')).toEqual(['trade', false]);
    expect(judged('guess')).toEqual(['memory', true]);
    // the final drive beside it was typed
    expect(judged('maker')).toEqual(['said', false]);
  });

  it('a ratio between two series has no carrier', () => {
    const build = described({ carriers }, { carrier: '4 series', finalDrive: { ring: 39, pinion: 10 } });
    const none = finding(build, 'carrier');
    expect([none?.verdict, none?.title]).toEqual(['stop', 'Rear: no carrier takes 3.900']);
    expect(none?.detail).toBe('Known: 3 series 2.7–3.73; 4 series 4.1–5.13.');
  });

  const set = (ring: number, pinion: number, torqueNm: number | null) => ({
    ring,
    pinion,
    torqueLimit: torqueNm === null ? null : entryOf(torqueNm, 'N·m'),
    price: null,
    leadDays: null,
    welded: false,
    origin: 'maker' as const,
  });

  it('a tooth count that nobody makes for this axle is doubted', () => {
    const odd = finding(described({ sets: [set(37, 9, null), set(43, 10, null)] }), 'set');
    expect([odd?.verdict, odd?.title]).toEqual(['watch', 'No 41/10 is known for this axle']);
    expect(odd?.detail).toContain('Heron has 37/9, 43/10');
    expect(odd?.rests).toBe('said'); // the list is the library's, the teeth were typed: the weaker counts
    expect(finding(described({ sets: [set(41, 10, null)] }), 'set')).toBeNull();
  });

  it('a set past its torque limit stops, and says by whose word', () => {
    const past = finding(described({ sets: [set(41, 10, 500)] }), 'torque');
    expect(past?.verdict).toBe('stop');
    expect(past?.detail.replace(/[\u00a0\u202f]/g, ' ')).toMatch(/it stands 500 N·m\.$/);
    expect(finding(described({ sets: [set(41, 10, 90_000)] }), 'torque')).toBeNull();
  });
});
