import { entryBase } from '@hot-spline/core';
import { BuildDeriver } from '../assembly/derive';
import { AXLES } from '../base/names';
import type { Build } from '../frame/document';
import type { LedgerEntry } from '../frame/readings';
import { BOARD_STATES, type BoardState } from './board-states';

/** How far the work on a build is. */
export interface BoardWork {
  readonly state: BoardState;
  /** The step that is next; empty where none is. */
  readonly next: string;
  readonly done: number;
  readonly of: number;
  /** Why it rests; empty where it does not. */
  readonly hold: string;
  /** Hours with hands on it: taken, and left by the plan. */
  readonly takenH: number;
  readonly leftH: number;
  /** Why it is to be looked at again; empty where it is not. */
  readonly due: string;
}

const NOTHING: BoardWork = { state: 'open', next: '', done: 0, of: 0, hold: '', takenH: 0, leftH: 0, due: '' };

const deriver = new BuildDeriver(true);

/** How far the work on a build is, the axle that is behind first: as the open build says it, for it is worked out alike. */
export function boardWork(build: Build, ledger: readonly LedgerEntry[]): BoardWork {
  const derived = deriver.derive(build, ledger);
  const axles = AXLES.flatMap((name): BoardWork[] => {
    const axle = build.axles[name];
    const work = derived.work[name];
    if (!axle?.work || !work) return [];
    const gate = (of: 'A' | 'B'): boolean => derived.gates[name]?.[of].open ?? false;
    const gates = { A: gate('A'), B: gate('B') };
    const { steps, next, minutes } = work;
    const done = steps.filter(({ status }) => status === 'done' || status === 'skipped').length;
    const due = derived.runin[name]?.due ?? [];
    const away = axle.work.parts.some(({ state }) => state !== 'here');
    const phase = next?.step.phase;
    const state: BoardState =
      due.length > 0
        ? 'due'
        : axle.work.hold
          ? 'waiting'
          : next === null
            ? 'done'
            : next.step.id === 'run-in' || next.step.id === 'hand-over'
              ? 'run-in'
              : gates.A && !gates.B && phase !== 'decide'
                ? 'gate-b'
                : phase === 'loop'
                  ? 'loop'
                  : away && phase === 'decide'
                    ? 'waiting'
                    : done === 0
                      ? 'planned'
                      : 'work';
    return [
      {
        state,
        next: next?.step.title ?? '',
        done,
        of: steps.length,
        hold: axle.work.hold?.why ?? '',
        takenH: minutes.taken / 60,
        leftH: minutes.left / 60,
        due: due.join(', '),
      },
    ];
  });
  const [first] = axles.sort((a, b) => BOARD_STATES.indexOf(a.state) - BOARD_STATES.indexOf(b.state));
  if (!first) return NOTHING;
  const sum = (of: (one: BoardWork) => number): number =>
    Math.round(10 * axles.reduce((all, one) => all + of(one), 0)) / 10;
  return { ...first, takenH: sum(({ takenH }) => takenH), leftH: sum(({ leftH }) => leftH) };
}

/**
 * What a build has in it that may fail elsewhere too, as `kind: what`: axle, carrier, gear set, unit, ring bolts and their
 * length, parts by their number. When one fails, every other build with it is found by it.
 */
export function facetsOf(build: Build): readonly string[] {
  const facets = new Set<string>();
  for (const name of AXLES) {
    const axle = build.axles[name];
    if (!axle) continue;
    const { identity, carrier, finalDrive, unit, joint, work, shafts } = axle;
    if (identity) facets.add(`axle: ${identity.name}`);
    if (identity && carrier) facets.add(`carrier: ${identity.name}, ${carrier}`);
    facets.add(`gear set: ${identity ? `${identity.name}, ` : ''}${finalDrive.ring}/${finalDrive.pinion}`);
    facets.add(`unit: ${unit.type.replace(/-/g, ' ')}`);
    const bolts = identity?.ringBolts?.value;
    if (bolts && joint) {
      const length = joint.underHead ? `, ${entryBase(joint.underHead).toFixed(1)} mm` : '';
      facets.add(`ring bolts: ${bolts.thread}${joint.grade ? ` ${joint.grade}` : ''}${length}`);
      if (joint.underHead && unit.type === 'spool')
        facets.add(`spool with bolts of ${entryBase(joint.underHead).toFixed(1)} mm`);
    }
    if (shafts) facets.add(`shafts: ${shafts.left.splines} splines, ${shafts.left.material.replace(/-/g, ' ')}`);
    for (const { number } of work?.parts ?? []) if (number) facets.add(`part: ${number}`);
  }
  return [...facets].map((facet) => facet.slice(0, 160));
}
