import { entryBase, type Job, type Operation } from '@hot-spline/core';
import { BuildDeriver } from '../assembly/derive';
import { AXLES } from '../base/names';
import type { Build } from '../frame/document';
import type { LedgerEntry } from '../frame/readings';
import { restOf, settingOf, type Rest } from './rest';
import { toolOf } from '../frame/tools';
import { BOARD_STATES, type BoardState } from './board-states';

/** How far the work on a build is. */
export interface BoardWork {
  /** Without what only the clock knows: whether a day has come, or something has set (`stands`). */
  readonly state: BoardState;
  /** The step that is next; empty where none is. */
  readonly next: string;
  readonly done: number;
  readonly of: number;
  /** What it waits for; null where it can go on. */
  readonly rest: Rest | null;
  /** What sets or cools meanwhile; null where nothing does. */
  readonly setting: Rest | null;
  /** How often it was put together so far, the time that it is now with it; 0 outside the loop. */
  readonly round: number;
  /** The gate that it stands at; empty where it stands at none. */
  readonly gate: 'A' | 'B' | '';
  /** Hours with hands on it: taken, and left by the plan. */
  readonly takenH: number;
  readonly leftH: number;
  /** Why it is to be looked at again; empty where it is not. */
  readonly due: string;
  /** What the jobs are, the axle that is behind first. */
  readonly jobs: readonly Job[];
  /** Tools that are lent: which, to whom, until when. */
  readonly lent: readonly string[];
}

/** Of a build on which there is no job. */
export const NO_WORK: BoardWork = {
  state: 'open',
  next: '',
  done: 0,
  of: 0,
  rest: null,
  setting: null,
  round: 0,
  gate: '',
  takenH: 0,
  leftH: 0,
  due: '',
  jobs: [],
  lent: [],
};

const deriver = new BuildDeriver(true);

function stateOf(at: Pick<BoardWork, 'rest' | 'due' | 'gate' | 'done'>, step: Operation | null): BoardState {
  if (at.due !== '') return 'due';
  if (at.rest !== null) return 'waiting';
  if (step === null) return 'done';
  if (at.gate !== '') return 'gate';
  if (step.id === 'run-in' || step.id === 'hand-over') return 'run-in';
  if (step.phase === 'loop') return 'loop';
  return at.done === 0 ? 'planned' : 'work';
}

/** How far the work on a build is, the axle that is behind first: as the open build says it, for it is worked out alike. */
export function boardWork(build: Build, ledger: readonly LedgerEntry[]): BoardWork {
  const derived = deriver.derive(build, ledger);
  const axles = AXLES.flatMap((name): BoardWork[] => {
    const work = derived.work[name];
    if (!work) return [];
    const { steps, next, minutes } = work;
    const at = {
      rest: restOf(work),
      setting: settingOf(work),
      gate: next?.step.gate ?? ('' as const),
      done: steps.filter(({ status }) => status === 'done' || status === 'skipped').length,
      due: (derived.runin[name]?.due ?? []).join(', '),
    };
    const state = stateOf(at, next?.step ?? null);
    return [
      {
        ...at,
        state,
        next: next?.step.title ?? '',
        of: steps.length,
        // What it came as is no round.
        round: state === 'loop' ? Math.max(1, derived.mesh[name]?.now?.number ?? 0) : 0,
        takenH: minutes.taken / 60,
        leftH: minutes.left / 60,
        jobs: [work.work.job],
        lent: work.work.tools.flatMap((tool) =>
          tool.state === 'lent'
            ? [
                [toolOf(tool.id).name, tool.with && `to ${tool.with}`, tool.back && `until ${tool.back}`]
                  .filter(Boolean)
                  .join(' '),
              ]
            : [],
        ),
      },
    ];
  });
  const [first] = axles.sort((a, b) => BOARD_STATES.indexOf(a.state) - BOARD_STATES.indexOf(b.state));
  if (!first) return NO_WORK;
  const sum = (of: (one: BoardWork) => number): number =>
    Math.round(10 * axles.reduce((all, one) => all + of(one), 0)) / 10;
  return {
    ...first,
    takenH: sum(({ takenH }) => takenH),
    leftH: sum(({ leftH }) => leftH),
    jobs: [...new Set(axles.flatMap(({ jobs }) => jobs))],
    lent: [...new Set(axles.flatMap(({ lent }) => lent))],
  };
}

/**
 * Where a job stands now: a recheck whose day has come makes it due, what has not set yet makes it wait.
 * @param today the day [ISO 8601]; `now` the moment, in UTC
 */
export function stands(
  work: BoardWork,
  rechecks: readonly { readonly on: string; readonly why: string }[],
  { today, now }: { readonly today: string; readonly now: string },
): BoardWork {
  const come = rechecks.find(({ on }) => on <= today);
  if (come) return { ...work, state: 'due', due: work.due || come.why || `since ${come.on}` };
  const { setting } = work;
  const sets = setting !== null && (setting.until ?? '') > now && work.state !== 'due' && work.rest === null;
  return sets ? { ...work, state: 'waiting', rest: setting } : work;
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
