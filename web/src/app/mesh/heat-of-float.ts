import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { BOX_LIMITS, entryBase, floatChangeMm, say, saySmall, type Arrangement, type Entry } from '@hot-spline/core';
import { attempt } from '../shared/attempt';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { numberReader } from '../shared/readers';
import { Bench } from '../state/bench';

/** Per kelvin; tables, from memory. */
const CASES = [
  { value: '', label: 'not said', expansion: 0 },
  { value: 'cast', label: 'Al-Si casting, 21.5', expansion: 21.5e-6 },
  { value: 'wrought', label: 'wrought aluminium, 23.1', expansion: 23.1e-6 },
  { value: 'iron', label: 'grey iron, 10.5', expansion: 10.5e-6 },
] as const;
const STEEL = 11.7e-6;
const HELD: readonly { value: Arrangement | ''; label: string }[] = [
  { value: '', label: 'not said' },
  { value: 'X', label: 'by the case, from outside (X)' },
  { value: 'O', label: 'cups back to back (O)' },
  { value: 'one-end', label: 'at one end' },
];

/** What heat makes of the float that is set cold: worked out beside it, kept nowhere. */
@Component({
  selector: 'hs-heat-of-float',
  imports: [Choice, EntryField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>What heat makes of it</summary>
      <div class="grid">
        <hs-entry
          name="heat-span"
          label="Between the bearings"
          quantity="length"
          [range]="spanRange"
          [entry]="span()"
          placeholder="240 mm"
          [compact]="true"
          (taken)="span.set($event.entry)"
        />
        <hs-choice name="heat-held" label="Shaft is held" [options]="held" [value]="how()" (chosen)="how.set($event)" />
        <hs-choice
          name="heat-case"
          label="Case, 10⁻⁶ per K"
          [options]="cases"
          [value]="alloy()"
          (chosen)="alloy.set($event)"
        />
        <hs-field
          name="heat-case-rise"
          label="Case warmer by, K"
          placeholder="70"
          mode="decimal"
          [text]="shown(caseRise())"
          [read]="readCase"
          [compact]="true"
          (taken)="caseRise.set($event)"
        />
        <hs-field
          name="heat-shaft-rise"
          label="Shaft warmer by, K"
          placeholder="75"
          mode="decimal"
          [text]="shown(shaftRise())"
          [read]="readShaft"
          [compact]="true"
          (taken)="shaftRise.set($event)"
        />
      </div>
      @if (problem(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      } @else if (words(); as said) {
        <p role="status">
          <strong>{{ said.hot }}</strong> {{ said.why }}
        </p>
      } @else {
        <p class="soft">Say all five; a float is set cold, and this is what becomes of it.</p>
      }
    </details>
  `,
  styles: `
    @use 'breakpoints' as *;
    summary {
      min-height: 32px;
      color: var(--soft);
      font-size: var(--text-s);
      cursor: pointer;
    }
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
      gap: 6px 12px;
      align-items: end;
    }
    p {
      margin-top: 6px;
      font-size: var(--text-s);
    }
    @media #{$narrow} {
      summary {
        min-height: 44px;
      }
    }
  `,
})
export class HeatOfFloat {
  /** The float as it is cold, mm: what was read, or what is aimed at while nothing was. */
  readonly coldMm = input.required<number>();
  private readonly bench = inject(Bench);
  protected readonly spanRange = BOX_LIMITS.lengthMm;
  protected readonly held = HELD;
  protected readonly cases = CASES.map(({ value, label }) => ({ value, label }));
  protected readonly span = signal<Entry | null>(null);
  protected readonly how = signal<Arrangement | ''>('');
  protected readonly alloy = signal<(typeof CASES)[number]['value']>('');
  protected readonly caseRise = signal<number | null>(null);
  protected readonly shaftRise = signal<number | null>(null);
  protected readonly readCase = numberReader('Case warmer by', BOX_LIMITS.riseK);
  protected readonly readShaft = numberReader('Shaft warmer by', BOX_LIMITS.riseK);

  protected shown(value: number | null): string {
    return value === null ? '' : String(value);
  }

  private readonly result = attempt(() => {
    const [span, arrangement, caseRiseK, shaftRiseK] = [this.span(), this.how(), this.caseRise(), this.shaftRise()];
    const expansion = CASES.find(({ value }) => value === this.alloy())?.expansion ?? 0;
    if (!span || arrangement === '' || caseRiseK === null || shaftRiseK === null || expansion === 0) return null;
    const coldMm = this.coldMm();
    const change = floatChangeMm({
      lengthMm: entryBase(span),
      caseRiseK,
      shaftRiseK,
      caseExpansion: expansion,
      shaftExpansion: STEEL,
      arrangement,
    });
    return { coldMm, hotMm: coldMm + change };
  });
  protected readonly problem = this.result.problem;
  protected readonly words = computed(() => {
    const found = this.result.value();
    if (!found) return null;
    const system = this.bench.system();
    const { coldMm, hotMm } = found;
    const hot =
      hotMm < 0
        ? `Hot it is squeezed by ${saySmall(-hotMm, system)}.`
        : `Hot it has ${saySmall(hotMm, system)} of float.`;
    const off = hotMm - coldMm;
    const change =
      Math.abs(off) < 5e-4
        ? 'Heat changes nothing there.'
        : `Cold ${saySmall(coldMm, system)}; heat ${off > 0 ? 'gives' : 'takes'} ${saySmall(Math.abs(off), system)}.`;
    return {
      hot,
      why: `${change} Steel shaft, 11.7 × 10⁻⁶ per K; over ${say(entryBase(this.span() as Entry), 'length', system)}. Tapered bearings want neither to lose their preload nor to gain one unseen.`,
    };
  });
}
