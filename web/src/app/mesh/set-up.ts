import { Injectable, computed, inject, signal } from '@angular/core';
import { entryOf, type Entry } from '@hot-spline/core';
import {
  newAxleSpec,
  newSetup,
  setupSubjects,
  type Construction,
  type ReadingValue,
  type Setup,
  type SheetKey,
  type SpecSheet,
  type SubjectOf,
} from '@hot-spline/model';
import { Library } from '../library/library';
import { Bench } from '../state/bench';

export type Assembly = Extract<ReadingValue, { of: 'assembly' }>;

/** The set-up of the followed axle as the sheets see it, and the ways to change it. */
@Injectable({ providedIn: 'root' })
export class SetUp {
  readonly bench = inject(Bench);
  private readonly library = inject(Library);
  readonly axle = this.bench.axleName;
  readonly setup = computed(() => this.bench.axle()?.setup ?? null);
  readonly identity = computed(() => this.bench.axle()?.identity ?? null);
  readonly mesh = computed(() => this.bench.derived()?.mesh[this.axle()] ?? null);
  readonly preload = computed(() => this.bench.derived()?.preload[this.axle()] ?? null);
  readonly gates = computed(() => this.bench.derived()?.gates[this.axle()] ?? null);
  /** Whether what is read now counts for good. */
  readonly stage = computed(() => (this.mesh()?.final ? ('final' as const) : ('trial' as const)));
  readonly number = computed(() => this.mesh()?.now?.number ?? 0);
  /** What the next assembly is to be put together with, by axle; kept while one looks at other sheets. */
  private readonly plans = signal<Readonly<Record<string, Assembly>>>({});
  readonly planned = computed(() => this.plans()[this.planKey()] ?? null);
  private readonly planKey = computed(() => `${this.bench.editor().id ?? ''} ${this.axle()}`);

  begin(): void {
    const schools = this.library.schools();
    this.bench.changeAxle((axle) => (axle.setup = newSetup(schools)));
  }

  change(recipe: (setup: Setup) => void): void {
    this.bench.changeAxle(({ setup }) => {
      if (setup) recipe(setup);
    });
  }

  setConstruction(value: Construction): void {
    const name = `${this.bench.build()?.name ?? 'Axle'} ${this.axle()}`;
    this.bench.changeAxle((axle) => {
      axle.identity ??= newAxleSpec(name);
      axle.identity.construction = { value, origin: 'measured' };
    });
  }

  setSheet<K extends SheetKey>(key: K, told: SpecSheet[K]): void {
    const name = `${this.bench.build()?.name ?? 'Axle'} ${this.axle()}`;
    this.bench.changeAxle((axle) => {
      axle.identity ??= newAxleSpec(name);
      axle.identity.sheet[key] = told;
    });
  }

  /** Writes a reading with the state that the axle is in. */
  record(subject: SubjectOf, value: Entry | readonly Entry[] | ReadingValue, instrument: string): void {
    const state = this.setup()?.state;
    if (state) this.bench.record(subject, value, instrument, { state });
  }

  plan(assembly: Assembly | null): void {
    this.plans.update((plans) => {
      const { [this.planKey()]: _, ...others } = plans;
      return assembly ? { ...others, [this.planKey()]: assembly } : others;
    });
  }

  /** Writes that it has been put together so. */
  assemble(assembly: Assembly, number: number): void {
    const subject = setupSubjects.assembled.of({ axle: this.axle(), assembly: String(number) });
    this.bench.record(subject, assembly, 'Micrometer');
    this.plan(null);
  }
}

/** A piece of so many mm, as it would be typed. */
export const pieceOf = (mm: number): Entry => entryOf(Number(mm.toFixed(4)), 'mm');

export const NOTHING_IN: Assembly = {
  of: 'assembly',
  pinion: [],
  left: [],
  right: [],
  leftNotches: 0,
  rightNotches: 0,
};
