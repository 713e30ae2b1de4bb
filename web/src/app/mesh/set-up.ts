import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { InputError, entryBase, entryOf, type Entry, type ShimStock, type UnitSystem } from '@hot-spline/core';
import {
  AS_IT_CAME,
  freeIn,
  heldBy,
  holdingsOf,
  newAxleSpec,
  newSetup,
  requireInStock,
  setupSubjects,
  takenFrom,
  type Construction,
  type Drawer,
  type GaugeSent,
  type ReadingValue,
  type Setup,
  type SheetKey,
  type SpecSheet,
  type SubjectOf,
} from '@hot-spline/model';
import { Library } from '../state/library';
import { Bench } from '../state/bench';
import { ShopSetUps } from '../state/set-ups';

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
  readonly number = computed(() => this.mesh()?.now?.number ?? 0);
  /** Nobody has loosened anything yet: what is read now is read as it came. */
  readonly asItCame = computed(() => {
    const work = this.bench.derived()?.work[this.axle()];
    return this.number() === 0 && (work ? work.metal.asItCame : this.mesh()?.final === false);
  });
  /** Whether what is read now counts for good. */
  readonly stage = computed(() => (this.mesh()?.final && !this.asItCame() ? ('final' as const) : ('trial' as const)));
  /** There is something to read: as it came, put together since, or closed for good as it was. Apart, a reading would take the place of what came. */
  readonly readable = computed(
    () => this.asItCame() || ((this.mesh()?.now ?? null) !== null && (this.number() > 0 || this.stage() === 'final')),
  );
  /** What a reading is taken in now. */
  readonly state = computed(() => (this.asItCame() ? AS_IT_CAME : (this.setup()?.state ?? null)));
  /** What the next assembly is to be put together with, by axle; kept while one looks at other sheets. */
  private readonly plans = signal<Readonly<Record<string, Assembly>>>({});
  readonly planned = computed(() => this.plans()[this.planKey()] ?? null);
  private readonly planKey = computed(() => `${this.bench.editor().id ?? ''} ${this.axle()}`);

  // Stock: what is free of the drawers of a seat for this axle.
  private readonly shop = inject(ShopSetUps);
  private readonly boxes = this.library.ofKind('shims');
  /** The drawers are not known yet: what is put together now would be taken out of none. */
  readonly awaited = this.library.awaited;
  private readonly own = computed(() => holdingsOf(this.bench.readings()));
  private readonly elsewhere = computed(() => {
    const id = this.bench.editor().id;
    return this.shop.holdings().filter(({ build }) => build !== id);
  });
  /** A practice axle is set up out of the same drawers, and takes nothing out of them. */
  private readonly practises = computed(() => this.bench.build()?.practice !== null);
  private readonly taken = computed(() =>
    takenFrom(
      this.boxes(),
      this.practises() ? [] : [...this.elsewhere(), ...this.own().filter(({ axle }) => axle !== this.axle())],
    ),
  );
  /** Drawers of a pack's seat, by name. */
  readonly boxesOf = computed(() => {
    const seat = this.mesh()?.construction === 'drop-out' ? 'support' : 'pinion-head';
    return {
      pinion: this.boxes().filter(({ spec }) => spec.seat === seat),
      sides: this.boxes().filter(({ spec }) => spec.seat === 'carrier'),
      spacer: this.boxes().filter(({ spec }) => spec.seat === 'spacer'),
    };
  });
  /** Those that pieces are taken out of: the chosen one, else all of the seat. */
  readonly drawers = computed(() => {
    const { pinion, sides } = this.boxesOf();
    const chosen = this.setup()?.drawers;
    const of = (boxes: readonly Drawer[], id: string | null): readonly Drawer[] =>
      boxes.some((box) => box.id === id) ? boxes.filter((box) => box.id === id) : boxes;
    return { pinion: of(pinion, chosen?.pinion ?? null), sides: of(sides, chosen?.sides ?? null) };
  });
  /** Pieces that a pack can be built from: what is free, and what of others is in it now; nothing without a drawer. */
  readonly stock = computed(() => {
    const now = this.mesh()?.now?.value;
    const of = (drawers: readonly Drawer[], inIt: readonly Entry[]): readonly ShimStock[] => {
      if (drawers.length === 0) return [];
      const rows = drawers.flatMap((drawer) => freeIn(drawer, this.taken()));
      const foreign = inIt.map(entryBase).filter((mm) => !rows.some((row) => Math.abs(row.mm - mm) < 0.0006));
      return together([
        ...rows.flatMap(({ mm, free }) => (free > 0 ? [{ mm, count: free }] : [])),
        ...foreign.map((mm) => ({ mm, count: 1 })),
      ]);
    };
    const { pinion, sides } = this.drawers();
    const known = [
      ...[...pinion, ...sides].flatMap(({ spec }) => spec.pieces.map(({ thickness }) => thickness)),
      ...(now ? [...now.pinion, ...now.left, ...now.right] : []),
    ];
    const system = this.bench.system();
    return {
      piece: (mm: number) => known.find((one) => Math.abs(entryBase(one) - mm) < 0.0006) ?? pieceIn(mm, system),
      pinion: of(pinion, now?.pinion ?? []),
      sides: of(sides, [...(now?.left ?? []), ...(now?.right ?? [])]),
    };
  });
  /** A spacer to crush, out of its drawer: the first that is free; null where no drawer of spacers is kept. */
  readonly nextSpacer = computed(() => {
    const boxes = this.boxesOf().spacer;
    const taken = takenFrom(boxes, [...this.elsewhere(), ...this.own()]);
    const free = boxes.flatMap((box) => freeIn(box, taken).map((row) => ({ ...row, drawer: box.id })));
    return boxes.length === 0 || this.practises()
      ? null
      : {
          left: free.reduce((sum, row) => sum + Math.max(0, row.free), 0),
          piece: free.find((row) => row.free > 0) ?? null,
        };
  });

  constructor() {
    // What other builds hold and taught is read anew for each axle that is looked at.
    effect(() => {
      this.planKey();
      untracked(() => void this.shop.read());
    });
  }

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
      axle.identity.construction = { value, origin: 'not-said' };
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
  record(
    subject: SubjectOf,
    value: Entry | readonly Entry[] | ReadingValue,
    instrument: string,
    by: { readonly gauge?: GaugeSent | null } = {},
  ): void {
    const state = this.state();
    if (state) this.bench.record(subject, value, instrument, { state, ...by });
  }

  plan(assembly: Assembly | null): void {
    this.plans.update((plans) => {
      const { [this.planKey()]: _, ...others } = plans;
      return assembly ? { ...others, [this.planKey()]: assembly } : others;
    });
  }

  /**
   * Writes that it has been put together so, out of these drawers; refused where a piece is in another axle.
   * @returns whether it was written
   */
  assemble(assembly: Assembly, number: number): boolean {
    const { pinion, sides } = this.drawers();
    const drawers = number === 0 || this.practises() ? [] : [...pinion, ...sides];
    const subject = setupSubjects.assembled.of({ axle: this.axle(), assembly: String(number) });
    const came = this.mesh()?.assemblies.find((one) => one.number === 0)?.value ?? null;
    const [here, there] = [
      this.own().filter(({ axle }) => axle === this.axle()),
      this.own().filter(({ axle }) => axle !== this.axle()),
    ];
    const others = [...this.elsewhere(), ...there];
    const next = heldBy(this.axle(), { ...assembly, drawers: drawers.map(({ id }) => id) }, came);
    try {
      requireInStock(drawers, next, here, others);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.bench.refuse(error);
      return false;
    }
    // Only those that a piece comes out of.
    const [before, after] = [takenFrom(drawers, others), takenFrom(drawers, [...others, ...next])];
    const used = drawers.filter(({ id }) => after.get(id)?.some((count, i) => count > (before.get(id)?.[i] ?? 0)));
    this.bench.record(subject, { ...assembly, drawers: used.map(({ id }) => id) }, 'Micrometer');
    this.plan(null);
    return true;
  }

  /** What a reading was taken with: the shop's instrument where one is chosen. */
  instrument(of: 'backlash' | 'turning'): string {
    return this.setup()?.gauges[of]?.name || (of === 'backlash' ? 'Dial indicator' : 'Turning-torque wrench');
  }
}

/** Puts the same thicknesses together. */
function together(pieces: readonly { readonly mm: number; readonly count: number }[]): readonly ShimStock[] {
  const counts = new Map<number, number>();
  for (const { mm, count } of pieces) {
    const key = Number(mm.toFixed(4));
    counts.set(key, (counts.get(key) ?? 0) + count);
  }
  return [...counts].map(([thicknessMm, count]) => ({ thicknessMm, count }));
}

/** A piece as this shop would type it: mm, thou, or inches where it is thick. */
export function pieceIn(mm: number, system: UnitSystem): Entry {
  if (system === 'metric') return pieceOf(mm);
  const inch = mm / 25.4;
  return inch < 0.1 ? entryOf(Number((1000 * inch).toFixed(1)), 'thou') : entryOf(Number(inch.toFixed(4)), 'in');
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
