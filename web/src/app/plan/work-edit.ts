import { Injectable, computed, inject } from '@angular/core';
import { InputError, type Facts, type Job } from '@hot-spline/core';
import {
  UNIT_KIND,
  factStates,
  newAxleSpec,
  newParts,
  newWork,
  overrideKey,
  sayFact,
  type SaidFact,
  factsOf,
  stateAfter,
  workSubjects,
  type Axle,
  type ReadingValue,
  type StepState,
  type Work,
  neededParts,
  orderOfWork,
  JOB_WORDS,
} from '@hot-spline/model';
import type { AxleSaidKey } from '../library/axle-said';
import { Library } from '../state/library';
import type { Option } from '../shared/choice';
import { localDay } from '../base/day';
import { Bench } from '../state/bench';

export const JOB_OPTIONS: readonly (Option<Job> & { readonly more: string })[] = (Object.keys(JOB_WORDS) as Job[]).map(
  (value) => ({ value, ...JOB_WORDS[value] }),
);

/** What happens to a gearbox with the axle, in words. */
export const BOX_LABELS: Readonly<Record<Facts['box'], string>> = {
  stays: 'stays shut',
  'input-float': 'input float only',
  synchro: 'synchro, opened',
  dog: 'dog box, opened',
  sequential: 'sequential, opened',
  transaxle: 'transaxle, opened',
};

/** What the parts follow from. */
const asked = ({ job, schools, facts }: Work) => [job, schools, facts];

/** The work on the followed axle as the sheets see it, and the ways to change it. */
@Injectable({ providedIn: 'root' })
export class WorkEdit {
  readonly bench = inject(Bench);
  private readonly library = inject(Library);
  readonly axle = this.bench.axleName;
  readonly work = computed(() => this.bench.axle()?.work ?? null);
  readonly state = computed(() => this.bench.derived()?.work[this.axle()] ?? null);
  /** Jobs that put in a unit of this kind, or leave the one that is in. */
  readonly jobs = computed(() => {
    const axle = this.bench.axle();
    return JOB_OPTIONS.filter(({ value }) => axle && this.goes(axle, value));
  });

  private goes(axle: Axle, job: Job): boolean {
    const kind = UNIT_KIND[axle.unit.type];
    return job === 'plates' ? kind === 'plate' : (job !== 'insert' && job !== 'locker') || kind === job;
  }

  /** The switches of the job; empty where its facts don’t go together: the finding says which. */
  readonly facts = computed(() => {
    const axle = this.bench.axle();
    try {
      return axle ? factStates(axle) : [];
    } catch (error) {
      if (error instanceof InputError) return [];
      throw error;
    }
  });

  /** A job sets its switches; what was said of them before is gone. */
  setJob(job: Job): void {
    this.change((work) => {
      work.job = job;
      work.facts = {};
    });
  }

  sayFact(fact: SaidFact, value: string | null): void {
    const axle = this.bench.axle();
    if (!axle) return;
    const facts = sayFact(axle, fact, value);
    this.change((work) => {
      work.facts = facts;
    });
  }

  /** Says what the axle itself is, on its spec; '' takes it back. The order of work and its parts follow. */
  sayAxle(key: AxleSaidKey, value: string): void {
    const name = `${this.bench.build()?.name ?? 'Axle'} ${this.axle()}`;
    this.bench.changeAxle((axle) => {
      axle.identity ??= newAxleSpec(name);
      const origin = axle.identity[key]?.origin ?? 'not-said';
      Object.assign(axle.identity, { [key]: value === '' ? null : { value, origin } });
      this.list(axle);
    });
  }

  /** Parts of the order that are not on the list: the axle’s spec was changed elsewhere since it was made. */
  readonly unlisted = computed(() => {
    const axle = this.bench.axle();
    const has = new Set(axle?.work?.parts.map(({ id }) => id));
    return axle?.work ? this.needed(axle).filter(({ id }) => !has.has(id)) : [];
  });

  listUnlisted(): void {
    this.bench.changeAxle((axle) => this.list(axle));
  }

  begin(job: Job): void {
    this.bench.changeAxle((axle) => {
      axle.work = newWork(job, UNIT_KIND[axle.unit.type], this.library.schools());
      this.list(axle);
    });
  }

  /** What the order of work needs and is not on the list goes onto it; what somebody has said of a part stays. */
  private list(axle: Axle): void {
    if (!axle.work) return;
    const fresh = this.needed(axle);
    if (fresh.length === 0) return;
    const has = new Set(axle.work.parts.map(({ id }) => id));
    // What nobody has ordered and no step needs any more goes.
    const wanted = new Set<string>(fresh.map(({ id }) => id));
    axle.work.parts = [
      ...axle.work.parts.filter(({ id, state }) => wanted.has(id) || state !== 'needed' || id.startsWith('own')),
      ...fresh.filter(({ id }) => !has.has(id)),
    ];
  }

  /** What the order of work needs; nothing where its facts don’t go together: the finding says which. */
  private needed(axle: Axle): Work['parts'] {
    try {
      const situation = factsOf(axle);
      const bolts = axle.identity?.ringBolts?.value.count ?? null;
      return situation ? newParts(neededParts(orderOfWork(situation)), bolts, axle.unit.type) : [];
    } catch (error) {
      if (error instanceof InputError) return [];
      throw error;
    }
  }

  change(recipe: (work: Work) => void): boolean {
    return this.bench.changeAxle((axle) => {
      if (!axle.work) return;
      const before = JSON.stringify(asked(axle.work));
      recipe(axle.work);
      if (before !== JSON.stringify(asked(axle.work))) this.list(axle);
    });
  }

  finish(step: StepState, how: 'done' | 'failed' | 'open', minutes: number | null): void {
    const keys = { axle: this.axle(), step: step.step.id };
    const value: ReadingValue = { of: 'choice', choice: how };
    this.bench.record(workSubjects.stepDone.of(keys), value, 'By hand');
    if (minutes !== null && how === 'done')
      this.bench.record(
        workSubjects.stepTime.of(keys),
        { typed: `${minutes} min`, value: minutes, unit: 'min' },
        'Clock',
      );
    if (how === 'done') this.follow(step);
  }

  /**
   * What follows from a step that was done: what it takes off goes into its tray, what it puts back is counted there, and the
   * state that readings are taken in is the one that it makes.
   */
  private follow({ step }: StepState): void {
    const facts = this.state()?.facts;
    const setup = this.bench.axle()?.setup;
    const state = facts && setup ? stateAfter(step, facts, setup.state) : null;
    const moves = state !== null && JSON.stringify(state) !== JSON.stringify(setup?.state);
    if (!moves && step.takes.length === 0 && step.returns.length === 0) return;
    this.bench.changeAxle((axle) => {
      if (axle.setup && state) axle.setup.state = state;
      if (axle.work) this.trays(axle.work, step);
    });
  }

  private trays(work: Work, step: StepState['step']): void {
    for (const { part, count = 1 } of step.takes)
      if (!work.trays.some((one) => one.part === part && one.back < one.out))
        work.trays.push({ id: this.fresh(work.trays), part, side: '', facing: '', out: count, back: 0 });
    const back = new Set(step.returns.map(({ part }) => part));
    work.trays = work.trays.map((one) => (back.has(one.part) ? { ...one, back: one.out } : one));
  }

  fresh(of: readonly { readonly id: string }[], prefix = 't'): string {
    let n = of.length + 1;
    while (of.some(({ id }) => id === `${prefix}${n}`)) n++;
    return `${prefix}${n}`;
  }

  skip(id: string, why: string): void {
    this.change((work) => work.skipped.push({ id, why }));
  }

  take(id: string): void {
    this.change((work) => (work.skipped = work.skipped.filter((one) => one.id !== id)));
  }

  move(step: string, follows: string | null, why: string): void {
    this.change((work) => {
      work.moves = work.moves.filter((one) => one.step !== step);
      work.moves.push({ id: this.fresh(work.moves, 'm'), step, follows, why });
    });
  }

  hold(reason: NonNullable<Work['hold']>['for'] | null, why: string): void {
    this.change(
      (work) => (work.hold = reason === null ? null : { for: reason, why, since: localDay(new Date()), until: null }),
    );
  }

  /** Until when it is expected to rest; null: nobody knows. */
  holdUntil(until: string | null): void {
    this.change((work) => {
      if (work.hold) work.hold.until = until;
    });
  }

  learn(step: string, text: string): void {
    this.bench.record(workSubjects.lesson.of({ axle: this.axle(), step }), { of: 'text', text }, 'By hand');
  }

  /** A name under doing a step all the same. */
  override(step: string, name: string, note: string): void {
    this.bench.sign(overrideKey(this.axle(), step), name, {}, note);
  }
}
