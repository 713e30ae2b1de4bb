import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { entryBase, packShims, say, saySmall } from '@hot-spline/core';
import {
  SIDES,
  freshId,
  isSpring,
  type Member,
  type PlateSpec,
  type ShimBox,
  type Side,
  newShimBox,
} from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
import { Bench } from '../state/bench';
import { ShimBoxEditor } from '../library/shim-box-editor';
import { Library } from '../state/library';
import { Drawers, PIECE_OPTIONS, type PIECES } from './drawers';

interface SideRow {
  readonly side: Side;
  readonly now: string;
  readonly nowOff: string;
  readonly pieces: string;
  readonly height: string;
  readonly off: string;
}

/** The exact best shims for both packs out of a drawer of the shop. */
@Component({
  selector: 'hs-shims-tab',
  imports: [Choice, ShimBoxEditor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    }
    @if (rows().length) {
      <div class="scroll" data-answer>
        <table class="table">
          <caption class="visually-hidden">
            Shims for both packs
          </caption>
          <thead>
            <tr>
              <th scope="col">Pack</th>
              <th scope="col">In it now</th>
              <th scope="col">From the drawer</th>
              <th scope="col">Height</th>
              <th scope="col">Off target</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.side) {
              <tr [attr.data-side]="row.side">
                <th scope="row">{{ row.side }}</th>
                <td>
                  <span class="mono now">{{ row.now }}</span><span class="soft">{{ row.nowOff }}</span>
                </td>
                <td class="mono big">{{ row.pieces }}</td>
                <td class="mono">{{ row.height }}</td>
                <td class="mono">{{ row.off }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      <p class="take">
        <button type="button" class="quiet go" [disabled]="same()" (click)="take()">
          {{ same() ? 'These are in the packs' : 'Put these in both packs' }}
        </button>
        <span class="soft" role="status">
          {{ proven() ? 'Proven best' : 'Best found' }} of what is in the drawer: least worst error, then both sides
          together, then fewest pieces.
        </span>
      </p>
    }
    <div class="ask">
      <hs-choice
        name="shim-box"
        label="Drawer"
        [options]="options()"
        [value]="box()?.id ?? ''"
        (chosen)="drawers.choose($event)"
      />
      <hs-choice
        name="shim-pieces"
        label="Pieces a side, at most"
        [options]="pieceOptions"
        [value]="most()"
        (chosen)="most.set($event)"
      />
      @if (!box()) {
        <button type="button" class="quiet" (click)="start()">Start a drawer</button>
      }
    </div>
    @if (box(); as b) {
      <hs-shim-box [spec]="b.spec" prefix="drawer" [whole]="false" (changed)="library.change(b.id, 'shims', $event)" />
    } @else {
      <p class="soft">
        Put the shims that are really in the drawer into the library: thickness and how many. The best pieces for both
        sides follow.
      </p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      padding-bottom: 12px;
    }
    .ask {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 12px;
    }
    table {
      width: auto;
      font-size: var(--text-m);
    }
    .now {
      margin-right: 8px;
    }
    .big {
      font-size: var(--text-figure);
    }
    .take {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 12px;
      font-size: var(--text-s);
    }
    .go:not(:disabled) {
      border-color: var(--blue);
      background: var(--blue);
      color: var(--on-blue);
    }
  `,
})
export class ShimsTab {
  protected readonly bench = inject(Bench);
  protected readonly library = inject(Library);
  protected readonly pieceOptions = PIECE_OPTIONS;
  protected readonly most = linkedSignal<(typeof PIECES)[number]>(() => '2');

  protected readonly drawers = inject(Drawers);
  protected readonly box = this.drawers.box;
  protected readonly options = this.drawers.options;

  private readonly packs = computed(() => this.bench.derived()?.axles[this.bench.axleName()]?.pack ?? null);
  /** Shims in a pack now, and everything else of its stack. */
  private readonly sides = computed(() => {
    const packs = this.packs();
    const plate = this.bench.plate();
    if (!packs || !plate) return [];
    const targetMm = entryBase(plate.targetHeight);
    return SIDES.map((side) => {
      const shims = packs[side].members
        .filter(({ member }) => member.kind === 'shim')
        .map(({ thicknessMm }) => thicknessMm);
      const sum = shims.reduce((a, b) => a + b, 0);
      return { side, shims, stackMm: packs[side].stackMm, fixedMm: packs[side].stackMm - sum, targetMm };
    });
  });
  private readonly attempt = attempt(() => {
    const box = this.box();
    const sides = this.sides();
    if (!box || sides.length === 0) return null;
    const stock = box.spec.pieces.map(({ thickness, count }) => ({ thicknessMm: entryBase(thickness), count }));
    return packShims(sides, stock, Number(this.most()));
  });
  protected readonly problem = this.attempt.problem;
  private readonly result = this.attempt.value;
  protected readonly proven = computed(() => this.result()?.provenBest ?? false);
  protected readonly rows = computed<SideRow[]>(() => {
    const result = this.result();
    const system = this.bench.system();
    if (!result) return [];
    const off = (mm: number): string =>
      Math.abs(mm) < 5e-4 ? 'on target' : `${saySmall(mm, system)} ${mm < 0 ? 'under' : 'over'}`;
    const together = (pieces: readonly number[]): string =>
      pieces.length ? pieces.map((piece) => saySmall(piece, system)).join(' + ') : 'none';
    return this.sides().map(({ side, shims, stackMm, targetMm }, i) => {
      const choice = result.sides[i];
      return {
        side,
        now: together(shims),
        nowOff: off(stackMm - targetMm),
        pieces: together(choice?.piecesMm ?? []),
        height: say(choice?.heightMm ?? 0, 'length', system),
        off: off(choice?.errorMm ?? 0),
      };
    });
  });
  protected readonly same = computed(() => {
    const result = this.result();
    const sorted = (list: readonly number[]): string =>
      [...list]
        .sort((a, b) => a - b)
        .map((mm) => mm.toFixed(4))
        .join(' ');
    return (
      result !== null && this.sides().every(({ shims }, i) => sorted(shims) === sorted(result.sides[i]?.piecesMm ?? []))
    );
  });

  protected start(): void {
    this.library.add(newShimBox('Pack shims'));
  }

  /** Replaces the shims of both packs, where the first one was, else outermost but for the springs. */
  protected take(): void {
    const result = this.result();
    const box = this.box();
    if (!result || !box) return;
    this.bench.changePlate((plate) =>
      SIDES.forEach((side, i) => replaceShims(plate, side, box.spec, result.sides[i]?.piecesMm ?? [])),
    );
  }
}

/** New shims get ids of their own: a reading of the old one holds for no other. */
export function replaceShims(plate: PlateSpec, side: Side, box: ShimBox, piecesMm: readonly number[]): void {
  const { members } = plate.packs[side];
  const first = members.findIndex(({ kind }) => kind === 'shim');
  const rest = members.filter(({ kind }) => kind !== 'shim');
  const before = first >= 0 ? members.slice(0, first).filter(({ kind }) => kind !== 'shim').length : -1;
  const springs = rest.findIndex(isSpring);
  const at = before >= 0 ? before : springs >= 0 ? springs : rest.length;
  const taken = [...plate.packs.left.members, ...plate.packs.right.members].map(({ id }) => id);
  const shims = piecesMm.map((mm): Member => {
    const id = freshId(taken, side.slice(0, 1));
    taken.push(id);
    const piece = box.pieces.find(({ thickness }) => Math.abs(entryBase(thickness) - mm) < 1e-6);
    const thickness = piece ? { ...piece.thickness } : { typed: `${mm} mm`, value: mm, unit: 'mm' as const };
    return { id, kind: 'shim', label: 'shim', thickness, condition: null };
  });
  plate.packs[side].members = [...rest.slice(0, at), ...shims, ...rest.slice(at)];
}
