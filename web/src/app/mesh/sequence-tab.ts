import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { InputError, LIMITS, MESH_LIMITS, parseEntry, say, type Entry } from '@hot-spline/core';
import {
  BUILT_IN_SEQUENCE,
  adjusterMoveWords,
  sequenceFault,
  type AdjusterMove,
  type AdjusterSequence,
  type Origin,
  type Until,
} from '@hot-spline/model';
import { ORIGIN_OPTIONS } from '../library/words';
import { Choice, type Option } from '../shared/choice';
import { Field, type Understood } from '../shared/field';
import { RemoveButton } from '../shared/remove-button';
import { textReader } from '../shared/readers';
import { unitsSaid } from '../shared/units-said';
import { AdjusterDrawing } from './adjuster-drawing';
import { SetUp } from './set-up';

const SIDES: readonly Option<AdjusterMove['side']>[] = [
  { value: 'ring', label: 'ring side' },
  { value: 'far', label: 'far side' },
  { value: 'both', label: 'both sides' },
];
const WAYS: readonly Option<AdjusterMove['way']>[] = [
  { value: 'in', label: 'in' },
  { value: 'out', label: 'out' },
];
const UNTILS: readonly Option<Until['of']>[] = [
  { value: 'hand', label: 'where the hand feels it' },
  { value: 'zero-lash', label: 'no backlash' },
  { value: 'torque', label: 'a torque' },
  { value: 'backlash', label: 'a backlash' },
  { value: 'growth', label: 'growth of the case' },
  { value: 'notches', label: 'so many notches' },
  { value: 'next-notch', label: 'the next lock notch' },
];
const torqueRange = { min: 0, max: LIMITS.torqueNm.max, unit: 'N·m' } as const;

/** How the adjusters are run up, as the sheet of this axle says it: move by move, drawn, with where it was read. */
@Component({
  selector: 'hs-sequence-tab',
  imports: [AdjusterDrawing, Choice, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (sequence(); as s) {
      <p class="soft">
        The moves of the sheet in their order; Carrier leads through them. Far is the side away from the back of the
        ring.
      </p>
      <ol>
        @for (move of s.moves; track $index; let i = $index) {
          <li>
            <hs-adjuster-drawing [move]="move" [ringSide]="ringSide()" />
            <hs-choice
              [name]="'move-side-' + i"
              label="Which"
              [of]="'move ' + (i + 1)"
              [options]="sides"
              [value]="move.side"
              (chosen)="set(i, { side: $event })"
            />
            <hs-choice
              [name]="'move-way-' + i"
              label="Way"
              [of]="'move ' + (i + 1)"
              [options]="ways"
              [value]="move.way"
              (chosen)="set(i, { way: $event })"
            />
            <hs-choice
              [name]="'move-until-' + i"
              label="Up to"
              [of]="'move ' + (i + 1)"
              [options]="untils"
              [value]="move.until.of"
              (chosen)="setUntil(i, $event)"
            />
            @if (far(move); as text) {
              <hs-field
                [name]="'move-far-' + i"
                [label]="'How far, move ' + (i + 1)"
                [labelHidden]="true"
                [text]="text.text"
                [read]="text.read"
                [compact]="true"
                (taken)="setFar(i, $event)"
              />
            } @else {
              <span></span>
            }
            <span class="tools">
              <button type="button" class="quiet icon bare" [disabled]="i === 0" (click)="shift(i)">
                <i class="pi pi-arrow-up" aria-hidden="true"></i
                ><span class="visually-hidden">Move {{ i + 1 }} one up</span>
              </button>
              <hs-remove [what]="'move ' + (i + 1)" (removed)="remove(i)" />
            </span>
          </li>
        }
      </ol>
      @if (fault(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      }
      <button type="button" class="quiet" (click)="add()">Another move</button>
      <div class="from">
        <hs-choice
          name="origin-adjusterSequence"
          label="Where the sequence is from"
          [options]="origins"
          [value]="s.origin"
          (chosen)="change({ origin: $event })"
        />
        <hs-field
          name="where-adjusterSequence"
          label="Sheet, page or photo"
          [text]="s.where"
          [read]="readWhere"
          [compact]="true"
          (taken)="change({ where: $event })"
        />
      </div>
    } @else {
      <p>
        Nobody has read the sequence of this axle’s sheet. Until then Carrier shows the order of common practice,
        without figures:
      </p>
      <ol class="built-in">
        @for (move of builtIn; track $index) {
          <li>
            <hs-adjuster-drawing [move]="move" [ringSide]="ringSide()" /><span>{{ wordsOf(move) }}</span>
          </li>
        }
      </ol>
      <button type="button" class="quiet main" (click)="begin()">Write the sheet’s own</button>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    p {
      margin-bottom: 8px;
      font-size: var(--text-s);
    }
    ol {
      display: grid;
      gap: 8px;
      margin: 8px 0 12px;
    }
    li {
      display: grid;
      grid-template-columns: 92px 8em 5em 13em minmax(7em, 1fr) auto;
      align-items: end;
      gap: 4px 10px;
    }
    .built-in li {
      grid-template-columns: 92px 1fr;
      align-items: center;
    }
    .tools {
      display: inline-flex;
      align-items: center;
    }
    .from {
      display: grid;
      grid-template-columns: minmax(0, 14em) minmax(0, 1fr);
      gap: 10px;
      margin-top: 14px;
    }
    @media #{$narrow} {
      li {
        grid-template-columns: 92px 1fr 1fr;
        padding-bottom: 8px;
        border-bottom: 1px solid var(--rule);
      }
    }
  `,
})
export class SequenceTab {
  private readonly setUp = inject(SetUp);
  protected readonly sides = SIDES;
  protected readonly ways = WAYS;
  protected readonly untils = UNTILS;
  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly builtIn = BUILT_IN_SEQUENCE;
  protected readonly readWhere = textReader('Where', 120);
  protected readonly sequence = computed(() => this.setUp.identity()?.adjusterSequence ?? null);
  protected readonly ringSide = computed(() => this.setUp.setup()?.ringSide ?? 'left');
  protected readonly fault = computed(() => sequenceFault(this.sequence()?.moves ?? []));

  protected wordsOf(move: AdjusterMove): string {
    return adjusterMoveWords(move, unitsSaid);
  }

  /** The field for how far a move goes; null where there is nothing to say. */
  protected far({ until }: AdjusterMove): {
    readonly text: string;
    readonly read: (text: string) => Understood<Entry | number>;
  } | null {
    if (!('value' in until)) return null;
    if (until.of === 'notches') return { text: String(until.value), read: readNotches };
    const torque = until.of === 'torque';
    const system = this.setUp.bench.system();
    const [quantity, scale] = torque ? (['torque', 'bolt'] as const) : (['length', 'small'] as const);
    return {
      text: unitsSaid(until.value),
      read: (text) => {
        const range = torque ? torqueRange : MESH_LIMITS.backlashMm;
        const { entry, base } = parseEntry(text, { field: 'How far', quantity, scale, range, system });
        const both = (['inch', 'metric'] as const).map((one) => say(base, quantity, one, undefined, scale));
        return { value: entry, said: both.join(' = ') };
      },
    };
  }

  protected begin(): void {
    this.put({ moves: [...BUILT_IN_SEQUENCE], origin: 'not-said', where: '' });
  }

  protected add(): void {
    const { moves } = this.known();
    this.change({ moves: [...moves, { side: 'far', way: 'in', until: { of: 'next-notch' } }] });
  }

  protected set(at: number, part: Partial<AdjusterMove>): void {
    this.change({ moves: this.known().moves.map((one, i) => (i === at ? { ...one, ...part } : one)) });
  }

  /** What has to be said of it begins at nothing: the sheet says how far. */
  protected setUntil(at: number, of: Until['of']): void {
    const until: Until =
      of === 'notches'
        ? { of, value: 0 }
        : of === 'torque'
          ? { of, value: { typed: '0 N·m', value: 0, unit: 'N·m' } }
          : of === 'backlash' || of === 'growth'
            ? { of, value: { typed: '0 mm', value: 0, unit: 'mm' } }
            : { of };
    this.set(at, { until });
  }

  protected setFar(at: number, value: Entry | number): void {
    const until = this.known().moves[at]?.until;
    if (until) this.set(at, { until: { ...until, value } as Until });
  }

  protected shift(at: number): void {
    const moves = [...this.known().moves];
    const [one] = moves.splice(at, 1);
    if (one) moves.splice(at - 1, 0, one);
    this.change({ moves });
  }

  /** Without a move there is no sequence. */
  protected remove(at: number): void {
    const moves = this.known().moves.filter((_, i) => i !== at);
    this.put(moves.length === 0 ? null : { ...this.known(), moves });
  }

  private known(): AdjusterSequence {
    return this.sequence() ?? { moves: [], origin: 'not-said', where: '' };
  }

  protected change(part: { moves?: AdjusterMove[]; origin?: Origin; where?: string }): void {
    this.put({ ...this.known(), ...part });
  }

  private put(sequence: AdjusterSequence | null): void {
    this.setUp.bench.changeAxle(({ identity }) => {
      if (identity) identity.adjusterSequence = sequence;
    });
  }
}

/** @throws InputError where it is no count of notches */
function readNotches(text: string): Understood<number> {
  const value = Number(text.trim());
  if (!Number.isInteger(value) || value < 1 || value > 200)
    throw new InputError('How far', 'Notches are a whole number.', '1 to 200');
  return { value, said: '' };
}
