import { entryOf } from '@hot-spline/core';
import type { LedgerEntry } from '../frame/readings';
import { backlash, pinionTorque, totalTorque } from '../mesh/readings';
import { FINAL_TRIAL, newSetup } from '../mesh/new-setup';
import { assembled, ringRunout } from '../mesh/readings';
import { done, entry, jobOf, keys, look, sign } from '../testing/bench';
import { meshNeedsOfB } from '../mesh/gate-needs';
import { overrideKey } from './index';
import { preloadWork } from '../preload/work';
import { newAxleSpec } from '../library/new-spec';
import { STEP_READINGS, compound, stepDone } from './readings';

/** A pinion that is set up for good, its sheet asking for 1.8 to 2.4 N·m [ours]. */
const build = jobOf('ratio-swap', (axle) => {
  axle.setup = {
    ...newSetup(),
    state: FINAL_TRIAL,
    gauges: { backlash: null, turning: { name: 'Dial', plusMinus: entryOf(0.1, 'N·m') } },
  };
  if (axle.identity)
    axle.identity.sheet.pinionTorqueNew = {
      value: { low: entryOf(1.8, 'N·m'), high: entryOf(2.4, 'N·m') },
      origin: 'measured',
      where: '',
    };
});
const inIt: LedgerEntry = entry(assembled.of({ axle: 'rear', assembly: '1' }), {
  of: 'assembly',
  pinion: [entryOf(1, 'mm')],
  left: [],
  right: [],
  leftNotches: 0,
  rightNotches: 0,
});
const torque = (nm: number): LedgerEntry => ({
  ...entry(pinionTorque.of({ axle: 'rear', spacer: '1', step: '1', angle: null, shims: [] }), {
    of: 'number',
    counts: 'mean',
    entries: [entryOf(nm, 'N·m')],
  }),
  state: FINAL_TRIAL,
});
const gateA = { ...sign('rear A', 'a test'), figures: { 'mesh.rear.shim': 1 } };
const of = (...more: LedgerEntry[]) => look(build, [inIt, gateA, ...more]);

describe('how a step stands', () => {
  it('is done by what was read, and only where that is right; opened again, it stays open', () => {
    expect(of().step('pinion-preload')?.status).toBe('open');
    const low = of(torque(1.2)).step('pinion-preload');
    expect([low?.status, low?.missing]).toEqual(['open', ['turning torque below its band']]);
    const good = of(torque(2)).step('pinion-preload');
    expect([good?.status, good?.byReading, good?.done?.who]).toEqual(['done', true, 'Ines']);
    const again = entry(stepDone.of(keys('pinion-preload')), { of: 'choice', choice: 'open' });
    expect(of(torque(2), again).step('pinion-preload')?.status).toBe('open');
    // Read anew after it was opened again, it is done anew.
    expect(of(again, torque(2)).step('pinion-preload')?.status).toBe('done');
  });

  it('run-out of the ring is read, and over the limit of the sheet it holds its step [what is wrong stops]', () => {
    const limited = structuredClone(build);
    const sheet = limited.axles.rear?.identity?.sheet;
    if (sheet) sheet.runout = { value: entryOf(0.08, 'mm'), origin: 'measured', where: '' };
    const step = (...mm: number[]) => {
      const value = { of: 'number' as const, counts: 'mean' as const, entries: mm.map((one) => entryOf(one, 'mm')) };
      const read = mm.length === 0 ? [] : [entry(ringRunout.of({ axle: 'rear' }), value)];
      const state = look(limited, [inIt, ...read]).step('run-out');
      return [state?.status, state?.missing, state?.waits.filter(({ holds }) => holds).map(({ what }) => what)];
    };
    expect(step()).toEqual(['open', ['run-out not read'], []]);
    expect(step(0.07)).toEqual(['done', [], []]);
    expect(step(0.09)).toEqual(['open', [], ['The ring runs out too far']]);
  });

  it('how it came is no trial: it ticks no step of the loop, and signs no gate by repeating itself', () => {
    const came = (what: 'trial' | 'final'): LedgerEntry => ({
      ...entry(backlash.of({ axle: 'rear', assembly: '0', stage: what }), {
        of: 'places',
        entries: [0.14, 0.15, 0.16, 0.15].map((mm) => entryOf(mm, 'mm')),
      }),
      state: FINAL_TRIAL,
    });
    const out = (pinion: number[], left: number[], right: number[]): LedgerEntry =>
      entry(assembled.of({ axle: 'rear', assembly: '0' }), {
        of: 'assembly',
        pinion: pinion.map((mm) => entryOf(mm, 'mm')),
        left: left.map((mm) => entryOf(mm, 'mm')),
        right: right.map((mm) => entryOf(mm, 'mm')),
        leftNotches: 0,
        rightNotches: 0,
      });
    const state = (...ledger: LedgerEntry[]) => look(build, ledger);
    const whole = state(out([1], [6], [6]), came('trial'));
    expect(whole.step('backlash')?.status).toBe('open');
    expect(whole.step('backlash')?.missing).toEqual(['backlash not read']);
    expect(whole.step('trial-carrier')?.missing).toEqual(['not put together on Carrier']);
    // One pack of three is not every shim.
    expect(whole.step('measure-shims')?.status).toBe('done');
    expect(state(out([1], [], []), came('trial')).step('measure-shims')?.status).toBe('open');
    // A reading of before is not compared with itself.
    const kept = structuredClone(build);
    const { setup, identity } = kept.axles.rear ?? {};
    if (setup) setup.gears = 'used';
    if (identity)
      identity.sheet.backlash = {
        value: { low: entryOf(0.2, 'mm'), high: entryOf(0.3, 'mm') },
        origin: 'measured',
        where: '',
      };
    const asks = { A: [], B: ['repeats-before'] } as const;
    const { mesh } = look(kept, [out([1], [6], [6]), came('final')]).derived;
    if (!mesh.rear) throw new Error('no set-up');
    const [need] = meshNeedsOfB(mesh.rear, { asks, said: () => null });
    expect([need?.need, need?.met]).toEqual(['Backlash and pattern as before', false]);
  });

  it('the total is read in the final state, and out of the band of its sheet it does no step', () => {
    const limited = structuredClone(build);
    const sheet = limited.axles.rear?.identity?.sheet;
    if (sheet)
      sheet.totalTorque = {
        value: { low: entryOf(2.2, 'N·m'), high: entryOf(3.1, 'N·m') },
        origin: 'measured',
        where: '',
      };
    const step = (nm: number, stage: 'trial' | 'final') =>
      look(limited, [
        inIt,
        gateA,
        {
          ...entry(totalTorque.of({ axle: 'rear', stage }), {
            of: 'number',
            counts: 'mean',
            entries: [entryOf(nm, 'N·m')],
          }),
          state: FINAL_TRIAL,
        },
      ]).step('total-torque');
    expect(step(2.5, 'trial')?.missing).toEqual(['total turning torque not read']);
    expect([step(2.5, 'final')?.status, step(3.4, 'final')?.status]).toEqual(['done', 'open']);
  });

  it('does nothing by itself that moves parts, and nothing behind a gate that is shut', () => {
    expect(of().step('trial-carrier')?.status).toBe('open');
    expect(look(build, [inIt, torque(2)]).step('pinion-preload')?.status).toBe('open');
  });

  it('a finding that says stop holds the step that it concerns, and its gate, until a name is under it', () => {
    const over = of(torque(3.1));
    expect(over.finding('preload.rear.pinion')?.verdict).toBe('stop');
    expect(over.step('pinion-preload')?.waits.filter(({ holds }) => holds)).toHaveSize(1);
    // The step that was ticked all the same stays done; its gate asks.
    const ticked = of(torque(3.1), done('pinion-preload'));
    expect(ticked.step('pinion-preload')?.status).toBe('done');
    const need = ({ derived }: typeof over) =>
      derived.gates.rear?.B.needs.find((one) => one.need === 'Nothing before it says stop');
    expect(need(ticked)?.met).toBeFalse();
    const named = of(torque(3.1), { ...sign(overrideKey('rear', 'pinion-preload')), note: 'the sheet is for others' });
    expect(named.step('pinion-preload')?.waits.some(({ holds }) => holds)).toBeFalse();
    expect(need(named)).toBeUndefined();
  });

  it('a compound that is open is said until it is finished, cleaned off, or its step is called done', () => {
    const put = (choice: string): LedgerEntry =>
      entry(compound.of({ axle: 'rear', step: 'seal-flange' }), { of: 'choice', choice });
    const open = (...ledger: LedgerEntry[]): boolean =>
      look(build, ledger).derived.findings.some(({ id }) => id === 'plan.rear.compound.seal-flange');
    expect(open(put('on'))).toBeTrue();
    expect(open(put('on'), put('closed'))).toBeFalse();
    expect(open(put('on'), put('cleaned off'))).toBeFalse();
    expect(open(put('on'), done('seal-flange'))).toBeFalse();
  });

  it('turning torque that could not be worked out meets no gate', () => {
    const { mesh } = look(build, [inIt]).derived;
    const { needs } = preloadWork(mesh.rear ?? null, null, new Map());
    const context = { asks: { A: ['backlash'], B: ['pinion-preload'] }, said: () => null } as const;
    for (const gate of ['A', 'B'] as const) expect(needs?.[gate]?.(context).map(({ met }) => met)).toEqual([false]);
  });

  it('a job that leaves the axle shut is signed by what its own step reads, with no set-up begun', () => {
    for (const construction of ['integral-head-shim', 'electric-reduction'] as const) {
      const shut = jobOf('input-float', (axle) => (axle.identity = newAxleSpec('Shut', construction, 'measured')));
      const gate = (...ledger: LedgerEntry[]) => look(shut, ledger).derived.gates.rear?.B;
      expect(gate()?.needs.map(({ of, met }) => [of, met]))
        .withContext(construction)
        .toEqual([['float', false]]);
      const again: LedgerEntry = entry(
        STEP_READINGS['length/small'].of({ axle: 'rear', step: 'input-float', record: 'again' }),
        {
          of: 'number',
          counts: 'one',
          entries: [entryOf(0.1, 'mm')],
        },
      );
      expect(gate(again)?.met).toBeTrue();
      expect(gate(again)?.open).toBeFalse();
      const signed = sign('rear B');
      expect(gate(again, signed)?.open).toBeTrue();
      expect(look(shut, [again, signed]).step('gate-b')?.status).toBe('done');
    }
  });
});
