import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { TableModule } from 'primeng/table';
import {
  HOLDS,
  LISTED_TRAVEL,
  entryBase,
  entryOf,
  formatIn,
  formatSmall,
  wantedPack,
  say,
  saySmall,
  waysToReach,
  wrenchReading,
  type Hold,
  type Plan,
  type Way,
  type WantedSideResult,
} from '@hot-spline/core';
import {
  HOLD_WORDS,
  SIDES,
  isPlate,
  layPack,
  memberTurns,
  wantedBandNm,
  wantedProblemOf,
  newShimBox,
} from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { Drawers, PIECE_OPTIONS, type PIECES } from './drawers';
import { replaceShims } from './shims-tab';

/** Plans shown; the rest are worse in every way that is ranked. */
const SHOWN = 6;
const THOU_MM = 0.0254;
/** Less than a micrometer tells apart moves no target. */
const TARGET_MOVES_MM = 0.002;

interface LaidPlate {
  readonly lined: boolean;
  readonly gear: boolean;
  readonly moved: boolean;
}

/** From a wanted breakaway to the packs that give it. */
@Component({
  selector: 'hs-wanted-tab',
  imports: [Choice, EntryField, RouterLink, TableModule, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ask">
      <hs-choice name="wanted-hold" label="Read with" [options]="holds" [value]="hold()" (chosen)="setHold($event)" />
      <hs-entry
        name="wanted-low"
        label="Breakaway from"
        quantity="torque"
        [range]="range"
        [entry]="wanted()?.low ?? null"
        placeholder="60 Nm"
        (taken)="setLow($event)"
      />
      <hs-entry
        name="wanted-high"
        label="to"
        quantity="torque"
        [range]="range"
        [entry]="wanted()?.high ?? null"
        placeholder="80 Nm"
        (taken)="setHigh($event)"
      />
      <hs-choice
        name="wanted-drawer"
        label="Drawer"
        [options]="drawers.options()"
        [value]="drawers.box()?.id ?? ''"
        (chosen)="drawers.choose($event)"
      />
      <hs-choice
        name="wanted-pieces"
        label="Shims, at most"
        [options]="pieceOptions"
        [value]="most()"
        (chosen)="most.set($event)"
      />
    </div>
    @if (!wanted()) {
      <div class="empty">
        <h2>What should the wrench read?</h2>
        <p>
          Take it from the maker’s sheet. Plate order, shims and spring height that reach it follow, the evenest packs
          with the most left to wear first.
        </p>
      </div>
    } @else if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    } @else {
      @if (asked(); as a) {
        <div class="asked" role="alertdialog" aria-label="Before it is laid">
          @if (a.target) {
            <p>{{ a.target }}</p>
          }
          @if (a.hard) {
            <p class="caution">{{ a.hard }}</p>
          }
          <div class="acts">
            <button type="button" class="quiet go" (click)="take(a.index, true)">
              {{ a.target ? 'Put these in, the target moves' : 'Put these in all the same' }}
            </button>
            @if (a.target) {
              <button type="button" class="quiet" (click)="take(a.index, false)">Put these in, keep the target</button>
            }
            <button type="button" class="quiet" (click)="pending.set(null)">Not</button>
          </div>
        </div>
      }
      <section class="scroll" aria-label="Packs that reach the wanted breakaway">
        <p-table [value]="rows()" dataKey="index" tableStyleClass="table">
          <ng-template #header>
            <tr>
              <th scope="col" pSortableColumn="moved">Order, gear outwards <p-sortIcon field="moved" /></th>
              <th scope="col" pSortableColumn="shimMm">Shims, {{ units().small }} <p-sortIcon field="shimMm" /></th>
              <th scope="col" pSortableColumn="readsNm">Reads, {{ units().torque }} <p-sortIcon field="readsNm" /></th>
              <th scope="col" pSortableColumn="uneven">Apart <p-sortIcon field="uneven" /></th>
              <th scope="col" pSortableColumn="reserveMm">
                To wear, {{ units().small }} <p-sortIcon field="reserveMm" />
              </th>
              <th scope="col" pSortableColumn="slopeNm">{{ units().step }} more <p-sortIcon field="slopeNm" /></th>
              <th scope="col" pSortableColumn="flattest">Springs <p-sortIcon field="flattest" /></th>
              <th><span class="visually-hidden">Actions</span></th>
            </tr>
          </ng-template>
          <ng-template #body let-row>
            <tr>
              <th scope="row">
                <span class="plates" [title]="row.orderWords">
                  @for (plate of row.plates; track $index) {
                    <span [class.gear]="plate.gear" [class.lined]="plate.lined" [class.moved]="plate.moved"></span>
                  }
                </span>
                <span class="soft small">{{ row.orderWords }}</span>
              </th>
              <td class="mono">
                <span class="soft">L</span> {{ row.shims[0] }}<br /><span class="soft">R</span> {{ row.shims[1] }}
              </td>
              <td class="reads">
                <hs-verdict [verdict]="row.inBand ? 'fits' : 'watch'" /><span class="mono big">{{ row.reads }}</span>
              </td>
              <td class="mono">{{ row.apart }}</td>
              <td class="mono">{{ row.reserve }}</td>
              <td class="mono">{{ row.slope }}</td>
              <td class="mono" [class.hard]="row.hard">{{ row.springs }}</td>
              <td>
                <button
                  type="button"
                  class="quiet"
                  [class.go]="row.index === 0"
                  [disabled]="row.same"
                  [attr.aria-label]="(row.same ? 'In the packs' : 'Put in') + ': plan ' + (row.index + 1)"
                  (click)="ask(row.index)"
                >
                  {{ row.same ? 'In the packs' : 'Put in' }}
                </button>
              </td>
            </tr>
          </ng-template>
          <ng-template #emptymessage>
            <tr>
              <td colspan="8">{{ nearest() }}</td>
            </tr>
          </ng-template>
        </p-table>
      </section>
      @if (weak(); as text) {
        <p class="soft">{{ text }}</p>
      }
      @if (unproven()) {
        <p class="soft">
          The drawer is so large that it was not searched to its end: other pieces may come nearer. Fewer pieces a side
          are proven sooner.
        </p>
      }
      <p class="soft">
        With the friction coefficient under
        <a [routerLink]="[]" [queryParams]="{ tab: 'springs' }">Plates and springs</a>
        and the thicknesses measured so far. Before a plan is laid it says whether the target height moves to its stack;
        one undo takes it back. The maker’s sheet wins.
      </p>
    }
  `,
  styleUrl: './wanted-tab.scss',
})
export class WantedTab {
  protected readonly bench = inject(Bench);
  protected readonly drawers = inject(Drawers);
  protected readonly range = { above: 0, max: 1e5, unit: 'N·m' };
  protected readonly holds = HOLDS.map((value) => ({ value, label: HOLD_WORDS[value] }));
  protected readonly pieceOptions = PIECE_OPTIONS;
  protected readonly most = signal<(typeof PIECES)[number]>('3');

  protected readonly wanted = computed(() => this.bench.plate()?.wanted ?? null);
  private readonly freshHold = signal<Hold>('other-wheel-held');
  protected readonly hold = computed(() => this.wanted()?.hold ?? this.freshHold());
  private readonly packs = computed(() => this.bench.derived()?.axles[this.bench.axleName()]?.pack ?? null);
  private readonly wheel = computed(() => this.packs()?.wheel ?? {});
  private readonly asks = attempt(() => {
    const plate = this.bench.plate();
    const packs = this.packs();
    if (!plate?.wanted || !packs) return null;
    return wantedProblemOf(plate, packs, this.drawers.box()?.spec ?? null, Number(this.most()));
  });
  private readonly attempt = attempt(() => {
    const problem = this.asks.value();
    return problem && wantedPack(problem);
  });
  protected readonly problem = computed(() => this.asks.problem() ?? this.attempt.problem());
  private readonly plans = computed(() => (this.attempt.value()?.plans ?? []).slice(0, SHOWN));
  protected readonly unproven = computed(() => this.plans().some(({ provenBest }) => !provenBest));
  protected readonly weak = computed(() => {
    const weak = this.attempt.value()?.tooWeak ?? [];
    const last = weak.at(-1);
    if (!last) return '';
    const most = say(
      wrenchReading({ leftNm: last.mostNm, rightNm: last.mostNm }, this.hold(), this.wheel()).torqueNm,
      'torque',
      this.bench.system(),
    );
    return `Orders with ${last.interfaces === 1 ? 'one interface' : `up to ${last.interfaces} interfaces`} are left out: the springs press them to ${most} at the most.`;
  });

  protected readonly units = computed(() => {
    const system = this.bench.system();
    const step = formatSmall(THOU_MM, system);
    return {
      small: step.unit,
      torque: formatIn(0, 'torque', system).unit,
      step: system === 'inch' ? 'One thou' : `${step.text} ${step.unit}`,
    };
  });

  protected readonly rows = computed(() => {
    const system = this.bench.system();
    const packs = this.packs();
    if (!packs) return [];
    const small = (mm: number): string => formatSmall(mm, system).text;
    const torque = (nm: number, decimals: number): string => formatIn(nm, 'torque', system, decimals).text;
    const wheel = this.wheel();
    // A change of the packs: drag is in both readings and in none of the difference.
    const atWrench = (nm: number): number =>
      wrenchReading({ leftNm: nm, rightNm: nm }, this.hold(), { ...wheel, turningNm: 0 }).torqueNm;
    return this.plans().map((plan, index) => {
      const [left, right] = plan.sides as readonly [WantedSideResult, WantedSideResult];
      const reading = wrenchReading(
        { leftNm: left.breakawayNm, rightNm: right.breakawayNm },
        this.hold(),
        wheel,
      ).torqueNm;
      const plates = packs.left.members.map(({ member }) => member).filter(isPlate);
      const moved = left.moved + right.moved;
      const slope = ((left.slopeNmPerMm + right.slopeNmPerMm) / 2) * THOU_MM;
      const together = (mm: readonly number[]): string => (mm.length === 0 ? 'none' : mm.map(small).join(' + '));
      const flattest = Math.max(left.flattest, right.flattest);
      return {
        index,
        plates: left.order.map((from, place): LaidPlate => {
          const member = plates[from];
          const { lined, keyedTo } = member ? memberTurns(member) : { lined: false, keyedTo: 'case' };
          return { lined, gear: keyedTo === 'gear', moved: from !== place };
        }),
        orderWords: `${plan.interfaces} interface${plan.interfaces === 1 ? '' : 's'}, ${moved === 0 ? 'order as it is' : `${moved} plates moved`}`,
        shims: [together(left.shimsMm), together(right.shimsMm)],
        inBand: plan.inBand,
        reads: torque(reading, 1),
        moved,
        shimMm: [...left.shimsMm, ...right.shimsMm].reduce((a, b) => a + b, 0),
        readsNm: reading,
        uneven: plan.uneven,
        reserveMm: plan.reserveMm,
        slopeNm: slope,
        flattest,
        apart: `${(100 * plan.uneven).toFixed(1)} %`,
        reserve: plan.reserveMm < 0 ? 'none' : small(plan.reserveMm),
        slope: `${slope < 0 ? '−' : '+'}${torque(atWrench(Math.abs(slope)), 2)}`,
        springs: `${Math.round(100 * flattest)} %`,
        hard: flattest > LISTED_TRAVEL,
        same: this.laid(plan),
      };
    });
  });

  /** A plan that waits for an answer. */
  protected readonly pending = signal<number | null>(null);

  private meanStack(plan: Plan): number {
    return plan.sides.reduce((sum, { stackMm }) => sum + stackMm, 0) / plan.sides.length;
  }

  /** What is to be known before it is laid; null where nothing is. */
  private readonly before = (index: number) => {
    const [plan, plate] = [this.plans()[index], this.bench.plate()];
    if (!plan || !plate) return null;
    const system = this.bench.system();
    const [now, then] = [entryBase(plate.targetHeight), this.meanStack(plan)];
    const length = (mm: number): string => say(mm, 'length', system);
    const moves = Math.abs(then - now) > TARGET_MOVES_MM;
    const flattest = Math.max(...plan.sides.map((side) => side.flattest));
    const target = moves ? `The target stack height would move from ${length(now)} to ${length(then)}.` : '';
    const hard =
      flattest > LISTED_TRAVEL
        ? `Springs would stand at ${Math.round(100 * flattest)} % of flat: beyond ${Math.round(100 * LISTED_TRAVEL)} % they tire early and no table lists their load.`
        : '';
    return target === '' && hard === '' ? null : { index, target, hard };
  };
  protected readonly asked = computed(() => {
    const index = this.pending();
    return index === null ? null : this.before(index);
  });

  protected ask(index: number): void {
    if (this.before(index)) this.pending.set(index);
    else this.take(index, true);
  }

  /** How near these plates and springs come, and what would reach it. */
  protected readonly nearest = computed(() => {
    const [plate, result] = [this.bench.plate(), this.attempt.value()];
    const band = plate && wantedBandNm(plate, this.wheel());
    const best = [...(result?.tooWeak ?? [])].sort((a, b) => b.mostNm - a.mostNm)[0];
    if (!band || !best) return 'No order of these plates comes near with these springs: no shims reach their height.';
    const system = this.bench.system();
    const reads = (nm: number): string =>
      say(wrenchReading({ leftNm: nm, rightNm: nm }, this.hold(), this.wheel()).torqueNm, 'torque', system);
    const most = `No order of these plates comes near with these springs: the most that they reach is ${reads(best.mostNm)}, with ${best.interfaces} working surfaces a side: ${reads(band[0])} is wanted.`;
    const ways = this.ways().map((way) => this.wayWords(way, best.interfaces, reads));
    return [most, ...(ways.length > 0 ? ways : ['Neither springs nested nor more surfaces reach it.'])].join(' ');
  });

  /** What reaches it, computed through to the room that it takes. */
  private readonly ways = computed(() => {
    const problem = this.asks.value();
    return problem && this.plans().length === 0 ? waysToReach(problem) : [];
  });

  private wayWords({ kind, count, sides, fits }: Way, now: number, reads: (nm: number) => string): string {
    const system = this.bench.system();
    const small = (mm: number): string => saySmall(mm, system);
    const held = Math.min(...sides.map(({ breakawayNm }) => breakawayNm));
    const flattest = Math.round(100 * Math.max(...sides.map((side) => side.flattest)));
    const room = Math.min(...sides.map(({ roomMm }) => roomMm));
    const needs = Math.max(...sides.map(({ needsMm }) => needsMm));
    const what =
      kind === 'nested'
        ? `${count === 2 ? 'Two dished springs' : `${count} dished springs`} nested where one lies now, with the same plates,`
        : `${count} working surfaces a side – ${count - now === 1 ? 'one plate' : `${count - now} plates`} more of their mean thickness –, with the same springs,`;
    const end = fits
      ? `There is room: ${small(room)} a side is left for shims.`
      : `The case is ${small(-room)} too shallow for it: thinner plates, or a case ${say(needs, 'length', system)} deep.`;
    const hard = flattest > 100 * LISTED_TRAVEL ? ' – they would tire early' : '';
    return `${what} would read ${reads(held)} at ${flattest} % of flat${hard}. ${end}`;
  }

  /** Whether both packs are this plan already. */
  private laid(plan: Plan): boolean {
    const packs = this.packs();
    if (!packs) return false;
    return SIDES.every((side, i) => {
      const planned = plan.sides[i];
      const shims = packs[side].members
        .filter(({ member }) => member.kind === 'shim')
        .map(({ thicknessMm }) => thicknessMm.toFixed(4))
        .sort();
      return (
        planned?.moved === 0 &&
        shims.join() ===
          planned.shimsMm
            .map((mm) => mm.toFixed(4))
            .sort()
            .join()
      );
    });
  }

  protected setHold(hold: Hold): void {
    this.freshHold.set(hold);
    if (this.wanted())
      this.bench.changePlate((plate) => {
        if (plate.wanted) plate.wanted.hold = hold;
      });
  }

  protected setLow({ entry, base }: TakenEntry): void {
    this.bench.changePlate((plate) => {
      const high = plate.wanted?.high;
      plate.wanted = {
        hold: this.hold(),
        low: entry,
        high: high && entryBase(high) > base ? high : entryOf(Number((1.2 * entry.value).toPrecision(3)), entry.unit),
      };
    });
  }

  protected setHigh({ entry }: TakenEntry): void {
    this.bench.changePlate((plate) => {
      const low = plate.wanted?.low ?? entryOf(Number((0.8 * entry.value).toPrecision(3)), entry.unit);
      plate.wanted = { hold: this.hold(), low, high: entry };
    });
  }

  /** Lays both packs as planned, shims from the drawer; the target height moves to the stack that comes of it, or stays. */
  protected take(index: number, moveTarget: boolean): void {
    this.pending.set(null);
    const plan = this.plans()[index];
    if (!plan) return;
    const drawer = this.drawers.box()?.spec ?? newShimBox('');
    this.bench.changePlate((plate) => {
      SIDES.forEach((side, i) => {
        const planned = plan.sides[i];
        if (!planned) return;
        layPack(plate, side, planned.order);
        replaceShims(plate, side, drawer, planned.shimsMm);
      });
      if (moveTarget) plate.targetHeight = entryOf(Number(this.meanStack(plan).toFixed(3)), 'mm');
    });
  }
}
