import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MESH_LIMITS, say, type Entry } from '@hot-spline/core';
import {
  setupSubjects,
  type Schools,
  type SheetKey,
  type SideMethod,
  type SideRead,
  type SubjectOf,
} from '@hot-spline/model';
import { Library } from '../state/library';
import { SetUp } from '../mesh/set-up';
import { numberKind } from '../mesh/number-kind';
import { EntryField } from '../shared/entry-field';
import { Radios } from '../shared/radios';
import { VerdictMark } from '../shared/verdict';

/** How each method is called, and what it takes. */
const METHODS: Readonly<
  Record<SideMethod, { readonly name: string; readonly needs: string; readonly band: SheetKey | null }>
> = {
  shims: {
    name: 'Shims beyond zero play',
    needs: 'Shims of both sides at which there is neither play nor drag; what is in now is more than that.',
    band: 'carrierPreload',
  },
  sequence: {
    name: 'Adjusters, run up by their sequence',
    needs: 'Every move of the sequence on Carrier done, both locks on a notch, backlash read after it.',
    band: null,
  },
  carrier: {
    name: 'The carrier alone',
    needs: 'A spline adapter, the pinion out or not in mesh; several turns, steady, oiled.',
    band: 'carrierTorque',
  },
  total: {
    name: 'Total less pinion',
    needs: 'Total and pinion read, the seal alike in both; the difference comes back times the ratio, its error too.',
    band: 'carrierTorque',
  },
  growth: {
    name: 'Growth of the case across the caps',
    needs: 'An indicator across the caps, at nothing while the carrier has play; on any construction.',
    band: 'caseGrowth',
  },
  feel: {
    name: 'By feel',
    needs: 'A school: recorded as such, never more than a watch. A hand is no instrument.',
    band: null,
  },
};
/** The shop’s school, as the method that it means here. */
const OF_SCHOOL: Readonly<Record<Schools['carrierPreload'], readonly SideMethod[]>> = {
  shims: ['shims', 'sequence'],
  adjusters: ['sequence', 'shims'],
  spread: ['growth'],
  turning: ['total', 'carrier'],
};
const SAID = ['right', 'too loose', 'too tight'].map((value) => ({ value, label: value }));

/** Side preload, every method side by side: what it takes, what it reads, what it is held against. */
@Component({
  selector: 'hs-side-tab',
  imports: [EntryField, Radios, RouterLink, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (row of rows(); track row.method) {
        <li [id]="'side-' + row.method + '-' + axle()" tabindex="-1">
          <h2>
            <hs-verdict [verdict]="row.verdict" /> {{ row.name }}
            @if (row.ours) {
              <span class="soft">this shop’s way</span>
            }
          </h2>
          <p class="soft">{{ row.needs }}</p>
          <div class="read">
            @if (row.subject; as subject) {
              <hs-entry
                [name]="'side-' + row.method + '-read-' + axle()"
                [label]="row.label"
                [quantity]="row.quantity"
                [scale]="row.scale"
                [range]="row.range"
                [plausible]="row.plausible"
                [entry]="row.entry"
                [enterOnly]="true"
                (taken)="write(subject, $event.entry)"
              />
            } @else if (row.word) {
              <hs-radios
                [name]="'side-' + row.method + '-said-' + axle()"
                label="It is"
                [options]="words"
                [value]="row.said ?? ''"
                (chosen)="choose(row.word, $event)"
              />
            } @else {
              <a [routerLink]="[]" [queryParams]="{ tab: null, at: 'total-torque-' + axle() }">Total, carrier in</a>
            }
            <p class="mono">
              @if (row.value) {
                <strong>{{ row.value }}</strong>
              }
              @if (row.band) {
                <span class="soft">wanted {{ row.band }}</span>
              } @else if (row.field) {
                <a [routerLink]="['..', 'baseline']" [queryParams]="{ tab: 'sheet', at: row.field }"
                  >what is wanted: not said</a
                >
              }
            </p>
          </div>
        </li>
      }
    </ul>
  `,
  styles: `
    @use 'breakpoints' as *;
    ul {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 18px 28px;
      margin-top: 12px;
    }
    h2 {
      display: flex;
      align-items: center;
      gap: 8px;
      font-size: var(--text-m);
    }
    h2 .soft {
      font-weight: 400;
      font-size: var(--text-s);
    }
    p {
      font-size: var(--text-s);
    }
    .read {
      display: grid;
      grid-template-columns: minmax(0, 15em) minmax(0, 1fr);
      align-items: end;
      gap: 4px 14px;
      margin-top: 6px;
    }
    .read p {
      display: grid;
      padding-bottom: 6px;
    }
    @media #{$narrow} {
      ul,
      .read {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class SideTab {
  private readonly setUp = inject(SetUp);
  private readonly library = inject(Library);
  protected readonly axle = this.setUp.axle;
  protected readonly words = SAID;
  private readonly first = computed(() => {
    const school = this.library.schools()?.carrierPreload;
    return school ? OF_SCHOOL[school] : [];
  });
  protected readonly rows = computed(() => {
    const own = this.first();
    const rank = ({ method }: SideRead): number => (own.includes(method) ? own.indexOf(method) : own.length);
    const reads = [...(this.setUp.preload()?.side ?? [])].sort((a, b) => rank(a) - rank(b));
    const ours = reads.find(({ method }) => own.includes(method))?.method;
    return reads.map((read) => this.row(read, read.method === ours));
  });

  private row(read: SideRead, ours: boolean) {
    const { method, quantity, scale, value, band, said, verdict } = read;
    const system = this.setUp.bench.system();
    const text = (base: number): string => say(base, quantity, system, undefined, scale);
    const axle = this.axle();
    const typed = this.typed(method);
    const kept = typed && this.setUp.bench.readingOf(typed.subject)?.value;
    return {
      ...METHODS[method],
      method,
      ours,
      verdict,
      said,
      label: method === 'shims' ? 'Both sides together at zero play' : 'Read',
      subject: typed?.subject ?? null,
      word: method === 'sequence' || method === 'feel' ? method : null,
      quantity: typed?.kind.quantity ?? quantity,
      scale: typed?.kind.scale ?? scale,
      range: typed?.kind.range ?? MESH_LIMITS.shimMm,
      plausible: typed?.kind.plausible,
      entry: kept?.of === 'number' ? (kept.entries[0] ?? null) : null,
      value: value === null ? '' : text(value),
      band: band === null ? '' : `${text(band[0])} to ${text(band[1])}${read.weak ? ', not from a sheet' : ''}`,
      field: METHODS[method].band === null ? '' : `sheet-${METHODS[method].band}-${axle}`,
    };
  }

  /** Where a method has a number of its own. */
  private typed(method: SideMethod) {
    const axle = this.axle();
    const { zeroPlay, carrierTorque, caseGrowth } = setupSubjects;
    switch (method) {
      case 'shims':
        return { subject: zeroPlay.of({ axle }), kind: numberKind(zeroPlay.value) };
      case 'carrier':
        return { subject: carrierTorque.of({ axle }), kind: numberKind(carrierTorque.value) };
      case 'growth':
        return { subject: caseGrowth.of({ axle }), kind: numberKind(caseGrowth.value) };
      default:
        return null;
    }
  }

  protected write(subject: SubjectOf, entry: Entry): void {
    this.setUp.bench.record(subject, entry, 'Dial or beam');
  }

  protected choose(method: 'sequence' | 'feel', choice: string): void {
    const subject = setupSubjects.sideSaid.of({ axle: this.axle(), method });
    this.setUp.bench.record(subject, { of: 'choice', choice }, 'By hand');
  }
}
