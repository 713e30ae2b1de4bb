import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { LedgerEntry, Signature } from '../frame/readings';
import { gateKey } from '../plan/gates';
import { floatUnitOf, practiceBuild } from '../practice/start';
import { floatScore } from '../practice/score';
import { testId } from '../testing/builds';
import { floatShimOf } from './float';
import { assembled, endFloat } from './readings';

const mm = (value: number) => entryOf(value, 'mm');
const kept = { at: '2026-01-02T03:04:05.000Z', who: '', state: {}, instrument: 'Dial indicator' } as const;
const put = (number: number, shim: number): LedgerEntry => ({
  kind: 'reading',
  id: testId(),
  ...kept,
  subject: assembled.of({ axle: 'rear', assembly: String(number) }),
  value: { of: 'assembly', pinion: [], left: [mm(shim)], right: [], leftNotches: 0, rightNotches: 0 },
});
const float = (number: number, value: number, stage: 'trial' | 'final' = 'trial'): LedgerEntry => ({
  kind: 'reading',
  id: testId(),
  ...kept,
  subject: endFloat.of({ axle: 'rear', assembly: String(number), stage }),
  value: { of: 'number', counts: 'mean', entries: [mm(value)] },
});
const unit = () => practiceBuild({ lesson: 'one-shim', seed: 0 });
const finding = (ledger: readonly LedgerEntry[], id: string, build = unit()) =>
  deriveBuild(build, ledger).findings.find((one) => one.id === id);

describe('a unit whose one shim sets end float', () => {
  it('says the shim, and asks for nothing of a ring or a pinion', () => {
    const derived = deriveBuild(unit(), [put(0, 1.346), float(0, 0.3)]);
    const mesh = derived.mesh.rear;
    if (!mesh) throw new Error('no set-up');
    // 53 thou, 12 measured: to the middle of 0.06 to 0.18 mm [common practice: new = old + (measured − wanted)]
    expect(floatShimOf(mesh)).toBeCloseTo(1.346 + 0.3 - 0.12, 9);
    const found = derived.findings.find(({ id }) => id === 'mesh.rear.float');
    expect(found?.verdict).toBe('watch');
    expect(found?.say('metric').title).toMatch(/^End float 0\.12\smm over$/);
    expect(found?.say('metric').detail).toMatch(/A shim 0\.18\smm thicker: 1\.526\smm/);
    const ids = derived.findings.map(({ id }) => id).filter((id) => /^(mesh|preload)\./.test(id));
    expect(ids).toEqual(['mesh.rear.float']);
    expect(derived.preload.rear).toBeUndefined();
  });

  it('a repeat counts by its mean, closed for good counts before tried, nothing read is said', () => {
    const repeat: LedgerEntry = {
      ...(float(1, 0.1) as Extract<LedgerEntry, { kind: 'reading' }>),
      value: { of: 'number', counts: 'mean', entries: [mm(0.1), mm(0.12)] },
    };
    const both = [put(0, 1.3), put(1, 1.4), repeat];
    expect(deriveBuild(unit(), both).figures.get('mesh.rear.float')?.value).toBeCloseTo(0.11, 9);
    expect(deriveBuild(unit(), [...both, float(1, 0.09, 'final')]).figures.get('mesh.rear.float')?.value).toBe(0.09);
    expect(finding([put(0, 1.3)], 'mesh.rear.float')?.verdict).toBe('not-yet');
    expect(finding([], 'mesh.rear.begun')?.verdict).toBe('not-yet');
  });

  it('held tight is said; a shim that would be thinner than nothing is not proposed', () => {
    expect(finding([put(1, 1.4), float(1, 0)], 'mesh.rear.float')?.say('metric').detail).toContain(
      'held tight by more',
    );
    const none = finding([put(1, 0.05), float(1, 0)], 'mesh.rear.float')?.say('metric').detail;
    expect(none).toContain('No shim is thin enough');
  });

  it('an indicator too coarse for the band stops; no band is asked for', () => {
    const coarse = unit();
    const { rear } = coarse.axles;
    if (!rear?.setup || !rear.identity) throw new Error('no axle');
    rear.setup.gauges.backlash = { name: 'Old dial', plusMinus: mm(0.06) };
    expect(finding([], 'mesh.rear.gauge', coarse)?.verdict).toBe('stop');
    rear.identity.sheet.endFloat = null;
    expect(finding([], 'mesh.rear.band', coarse)?.verdict).toBe('not-yet');
  });

  it('gates: a sheet, a measured shim, float tried, then closed for good; another shim closes both', () => {
    const gates = (ledger: readonly LedgerEntry[]) => {
      const found = deriveBuild(unit(), ledger).gates.rear;
      if (!found) throw new Error('no gates');
      return found;
    };
    const tried = [put(0, 1.3), put(1, 1.45), float(1, 0.12)];
    expect(gates(tried.slice(0, 1)).A.needs.filter(({ met }) => !met).length).toBe(2);
    expect(gates(tried).A.met).toBeTrue();
    const sign = (gate: 'A' | 'B', ledger: readonly LedgerEntry[]): Signature => ({
      kind: 'signature',
      id: testId(),
      at: kept.at,
      who: 'Ada',
      name: 'Ada',
      gate: gateKey('rear', gate),
      figures: gates(ledger)[gate].figures,
      note: '',
    });
    const a = [...tried, sign('A', tried)];
    expect([gates(a).A.open, gates(a).B.met]).toEqual([true, false]);
    const closed = [...a, float(1, 0.3, 'final')];
    expect(gates(closed).B.met).toBeFalse();
    const right = [...a, float(1, 0.1, 'final')];
    expect(gates(right).B.met).toBeTrue();
    const b = [...right, sign('B', right)];
    expect(gates(b).B.open).toBeTrue();
    const other = gates([...b, put(2, 1.5)]);
    expect([other.A.open, other.B.open]).toEqual([false, false]);
  });

  it('the practice unit is in spec by the rule in one assembly, its truth not in the build', () => {
    const build = unit();
    const hidden = floatUnitOf(build);
    if (!hidden) throw new Error('no unit');
    expect(JSON.stringify(build)).not.toContain('roomMm');
    const { startShimMm, truth } = hidden;
    const ledger = [put(0, startShimMm), float(0, truth.roomMm - startShimMm)];
    const mesh = deriveBuild(build, ledger).mesh.rear;
    const next = mesh && floatShimOf(mesh);
    if (!next) throw new Error('no shim');
    const done = deriveBuild(build, [...ledger, put(1, next)]).mesh.rear;
    if (!done) throw new Error('no set-up');
    const score = floatScore(hidden, done, 12);
    expect([score.inSpec, score.assemblies, score.minutes]).toEqual([true, 1, 12]);
    expect(Math.abs(score.rightShimMm - next)).toBeLessThan(0.02);
  });
});
