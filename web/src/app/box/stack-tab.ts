import { CdkDrag, CdkDropList, CdkDropListGroup } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { boxRatio, gearLadder, restack, say, type BoxShaft, type Rung } from '@hot-spline/core';
import {
  WHOLE_BOX,
  cutPieces,
  gearPairs,
  lastRunOf,
  pieceName,
  piecesOf,
  stackedBox,
  takeGears,
  teethText,
  withPair,
  type BoxInside,
  type OtherTeeth,
  type Verdict,
} from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { Field } from '../shared/field';
import { gearTeethReader } from '../shared/readers';
import { Bench } from '../state/bench';
import { BoxBench, SHAFTS } from './box-bench';
import { BoxDrawing } from './box-drawing';

interface Tried extends OtherTeeth {
  readonly id: string;
}

const RANK: readonly Verdict[] = ['stop', 'watch', 'not-yet', 'fits'];
const SIDES = { driving: 0, driven: 0 } as const;

/** Both shafts as they are stacked; a pair is dragged in, or typed, and what comes off for it is said before it is taken. */
@Component({
  selector: 'hs-box-stack',
  imports: [BoxDrawing, CdkDrag, CdkDropList, CdkDropListGroup, Field, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stack-tab.html',
  styleUrl: './stack-tab.scss',
})
export class StackTab {
  protected readonly box = inject(BoxBench);
  protected readonly bench = inject(Bench);
  protected readonly state = this.box.state;
  protected readonly chosen = signal<string | null>(null);
  /** Teeth that are looked at, and not taken yet. */
  protected readonly tried = signal<readonly Tried[]>([]);
  protected readonly readTeeth = gearTeethReader('Teeth');

  constructor() {
    effect(() => {
      const tried = this.tried();
      if (tried.length === 0) return;
      this.bench.drag((draft) => {
        if (!draft.box) return draft;
        const after = { ...draft, box: this.with(draft.box, tried), gearbox: { ...draft.gearbox } };
        takeGears(after);
        return after;
      });
    });
    inject(DestroyRef).onDestroy(() => this.leave());
  }

  private with(inside: BoxInside, tried: readonly Tried[]): BoxInside {
    const lastRun = lastRunOf(this.bench.readings());
    return tried.reduce((one, { id, ...teeth }) => withPair(one, id, teeth, lastRun), inside);
  }

  /** Gears of Engine and gearbox that the box does not have: a set that the course chose, say. */
  protected readonly elsewhere = computed<readonly Tried[]>(() => {
    const [inside, present] = [this.box.kept(), this.bench.editor().present];
    if (!inside || !present || inside.pairs.some(({ constant }) => constant)) return [];
    return gearPairs(inside).flatMap((pair, i) => {
      const match = /^\s*(\d{1,3})\s*\/\s*(\d{1,3})\s*$/.exec(present.gearbox.gears[i]?.ratio.typed ?? '');
      const [driven, driver] = [Number(match?.[1]), Number(match?.[2])];
      if (!match || (driven === pair.driven && driver === pair.driver)) return [];
      return [{ id: pair.id, driven, driver, fits: this.fitsOf(driver, driven), shiftSum: null }];
    });
  });

  private fitsOf(driver: number, driven: number): readonly number[] {
    return (
      this.bench.build()?.shelf.pairs.find((pair) => pair.driver === driver && pair.driven === driven)?.positions ?? []
    );
  }

  protected readonly verdicts = computed<Readonly<Record<string, Verdict>>>(() => {
    const findings = this.bench.derived()?.findings ?? [];
    return Object.fromEntries(
      (this.box.inside()?.pairs ?? []).map(({ id }) => {
        const own = findings.filter(
          (one) => one.id.startsWith(`box.pair.${id}.`) || (one.id.startsWith('box.gap.') && one.id.endsWith(`.${id}`)),
        );
        return [id, RANK.find((verdict) => own.some((one) => one.verdict === verdict)) ?? 'fits'];
      }),
    );
  });
  protected readonly names = computed(() =>
    Object.fromEntries((this.box.inside()?.pairs ?? []).map(({ id }) => [id, this.box.short(id)])),
  );
  protected readonly triedIds = computed(() => this.tried().map(({ id }) => id));
  protected readonly shims = computed(() => {
    const inside = this.box.inside();
    return { driving: inside?.shafts.driving.shim ?? null, driven: inside?.shafts.driven.shim ?? null };
  });
  protected readonly shimWords = computed<Readonly<Record<BoxShaft, string>>>(() => {
    const floats = this.state()?.floats;
    const words = (shaft: BoxShaft): string => {
      const mm = floats?.[shaft].tries.at(-1)?.shimMm ?? null;
      return mm === null
        ? ''
        : `${shaft === 'driven' ? 'Driven' : 'Driving'} shaft: shim ${say(mm, 'length', this.bench.system(), undefined, 'small')}`;
    };
    return { driving: words('driving'), driven: words('driven') };
  });

  protected readonly worst = computed(() => {
    const share = this.bench.figure('box.worst-overlap')?.value ?? null;
    return share === null ? '' : `, ${share.toFixed(0)} % of the faces at worst`;
  });

  /** What is wrong at a pair, in the words of the findings. */
  protected readonly said = computed(() => {
    const id = this.tried()[0]?.id ?? this.chosen();
    if (id === null) return [];
    const system = this.bench.system();
    return (this.bench.derived()?.findings ?? [])
      .filter(
        (one) => one.id.startsWith(`box.pair.${id}.`) || (one.id.startsWith('box.gap.') && one.id.endsWith(`.${id}`)),
      )
      .map((one) => ({ ...one.say(system), verdict: one.verdict, id: one.id }));
  });

  /** What the change takes apart: by the box as it is kept, and as it is looked at. */
  private readonly changing = attempt(() => {
    const [before, after] = [this.box.kept(), this.box.inside()];
    const tried = this.tried();
    if (!before || !after || tried.length === 0) return null;
    const list = restack(stackedBox(before, SIDES), stackedBox(after, SIDES), cutPieces(before));
    const name = (of: BoxInside, shaft: BoxShaft, id: string): string => {
      const piece = of.shafts[shaft].pieces.find((one) => one.id === id);
      return piece ? pieceName(of, piece) : '';
    };
    return {
      list,
      rows: tried.map(({ id, driver, driven }) => {
        const was = before.pairs.find((pair) => pair.id === id);
        const is = after.pairs.find((pair) => pair.id === id);
        const ratio = (of: BoxInside, pair: typeof was): string => (pair ? boxRatio(of, pair).toFixed(3) : '–');
        return {
          id,
          name: is ? this.box.name(is) : '',
          was: was ? teethText(was) : '',
          is: teethText({ driver, driven }),
          ratios: `${ratio(before, was)} → ${ratio(after, is)}`,
        };
      }),
      off: list.off.map(({ shaft, piece, other }) => ({
        shaft,
        name: name(before, shaft, piece.id),
        other,
        id: piece.id,
      })),
      on: list.on.map(({ shaft, piece, other }) => ({
        shaft,
        name: name(after, shaft, piece.id),
        other,
        id: piece.id,
      })),
      shafts: list.shafts.map((shaft) => SHAFTS.find((one) => one.shaft === shaft)?.name.toLowerCase() ?? ''),
      stops: Object.entries(this.verdicts()).some(
        ([id, verdict]) => verdict === 'stop' && tried.some((one) => one.id === id),
      ),
    };
  });

  protected readonly change = this.changing.value;

  /** Pairs of the shelf for the gear that is chosen, those that its maker made for it first. */
  protected readonly offers = computed<readonly (OtherTeeth & { readonly text: string; readonly ratio: string })[]>(
    () => {
      const [build, id] = [this.bench.build(), this.chosen()];
      if (!build) return [];
      const place = id === null ? 0 : this.box.gears().findIndex((pair) => pair.id === id) + 1;
      const own = build.shelf.pairs.filter(
        ({ positions }) => place === 0 || positions.length === 0 || positions.includes(place),
      );
      return own.map(({ driver, driven, positions }) => ({
        driver,
        driven,
        fits: positions,
        shiftSum: null,
        text: teethText({ driver, driven }),
        ratio: (driven / driver).toFixed(3),
      }));
    },
  );

  private readonly climbing = attempt(() => {
    const [build, inside, state] = [this.bench.build(), this.box.inside(), this.state()];
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    if (!build || !inside || !state || !own) return null;
    const constant = inside.pairs.find((pair) => pair.constant);
    const rungs = gearLadder({
      pairs: gearPairs(inside),
      ...(constant ? { inputPair: constant } : {}),
      finalRatio: own.finalRatio * own.hubRatio,
      limitRpm: build.engine.limitRpm,
      rollingCircumferenceMm: own.circumferenceMm,
    });
    const top = Math.max(...rungs.map(({ speedAtLimitKmh }) => speedAtLimitKmh));
    const system = this.bench.system();
    const low = build.brief.window.lowRpm;
    return {
      limit: say(build.engine.limitRpm, 'rotation', system, 0),
      rungs: rungs.map((rung: Rung, i) => ({
        name: String(i + 1),
        share: (100 * rung.speedAtLimitKmh) / top,
        speed: say(rung.speedAtLimitKmh / 3.6, 'speed', system, 0),
        after: rung.rpmAfterShift === null ? '' : `${Math.round(rung.rpmAfterShift)}`,
        step: rung.stepTo === null ? '' : `÷${rung.stepTo.toFixed(3)}`,
        // A shift that lands below the window of the brief lands where the engine does not pull.
        below: rung.rpmAfterShift !== null && rung.rpmAfterShift < low,
        tried: this.triedIds().includes(gearPairs(inside)[i]?.id ?? ''),
      })),
      window: `${Math.round(low)}`,
    };
  });

  protected readonly ladder = this.climbing.value;
  protected readonly noLadder = computed(() => this.climbing.problem() !== null);

  /** While it is dragged: what is chosen stays, or the list that it is dragged out of would be another one. */
  protected over({ id, teeth }: { readonly id: string; readonly teeth: unknown }): void {
    this.tried.set([{ id, ...(teeth as OtherTeeth) }]);
  }

  protected look(of: { readonly id: string; readonly teeth: unknown }): void {
    this.chosen.set(of.id);
    this.over(of);
  }

  protected lookAt(teeth: OtherTeeth): void {
    const id = this.chosen();
    if (id !== null) this.look({ id, teeth });
  }

  protected typed({ driver, driven }: { readonly driver: number; readonly driven: number }): void {
    this.lookAt({ driver, driven, fits: this.fitsOf(driver, driven), shiftSum: null });
  }

  protected fromElsewhere(): void {
    this.tried.set(this.elsewhere());
  }

  protected leave(): void {
    this.tried.set([]);
    this.bench.drop();
  }

  /** Takes what is looked at: gears in both places, and a round of opening with what comes off. */
  protected take(): void {
    const [tried, change] = [this.tried(), this.change()];
    if (!change) return;
    const pieces = piecesOf(change.list);
    this.bench.change((draft) => {
      if (!draft.box) return;
      draft.box = this.with(draft.box, tried);
      takeGears(draft);
      const { round } = draft.boxWork ?? WHOLE_BOX;
      draft.boxWork = { round: round + 1, pieces };
    });
    this.tried.set([]);
  }
}
