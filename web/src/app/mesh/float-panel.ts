import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { say, type Entry } from '@hot-spline/core';
import { floatOf, floatShimOf, floatWanted, meshFigures, setupSubjects, type SubjectOf } from '@hot-spline/model';
import { PracticeTruth } from './practice-truth';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { HeatOfFloat } from './heat-of-float';
import { packFrom } from './next-assembly';
import { numberKind } from './number-kind';
import { piecesMm, piecesReader, piecesText } from './pieces';
import { NOTHING_IN, SetUp, type Assembly } from './set-up';

/** One shim and its end float: what is in, what it reads, and the shim that comes next. */
@Component({
  selector: 'hs-float',
  imports: [EntryField, Field, FigureButton, HeatOfFloat],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="columns">
      <section [attr.aria-label]="'Assembly ' + number()">
        <h2 class="section-title">{{ planned() ? 'Assembly ' + number() + ', laid out' : 'In it now' }}</h2>
        <hs-field
          [name]="'left-' + axle()"
          label="Shim"
          placeholder="1.24 mm"
          [text]="text()"
          [read]="readShim()"
          (taken)="lay($event)"
        />
        @if (change(); as c) {
          <p>{{ c }}</p>
        }
        <div class="tools">
          <button type="button" class="quiet main" [disabled]="setUp.awaited()" (click)="assemble()">
            Put together: assembly {{ number() }}
          </button>
          @if (planned()) {
            <button type="button" class="quiet" (click)="setUp.plan(null)">As it is</button>
          }
        </div>
      </section>
      <section aria-label="End float">
        <h2 class="section-title">End float</h2>
        @if (now(); as n) {
          <div class="pair">
            @for (at of stages; track at.stage) {
              <hs-entry
                [name]="'float-' + at.stage + '-' + axle()"
                [label]="at.label"
                quantity="length"
                scale="small"
                [range]="kind.range"
                [plausible]="kind.plausible"
                [truth]="truth.endFloat(at.stage === 'final')"
                [entry]="entryOf(subjectOf(n.number, at.stage))"
                [enterOnly]="true"
                [several]="true"
                (taken)="write(subjectOf(n.number, at.stage), $event.several ?? $event.entry)"
              />
            }
          </div>
          <p class="soft">
            Shaft tapped home, pulled and pushed against the indicator; twice. A shim or a bearing that is not home
            reads false. The motor-side bearing takes its ring with the case bolts finger-tight.
          </p>
          @if (coldMm() !== null) {
            <hs-heat-of-float [coldMm]="coldMm()!" />
          }
          @if (next(); as shim) {
            <div class="advice" role="status" aria-label="Next shim">
              <p>
                <strong>{{ shim.says }}</strong>
              </p>
              <button type="button" class="quiet" (click)="lay(shim.pieces)">Put it in</button>
            </div>
          }
        } @else {
          <p class="soft">Write first what came out, on Baseline, or put it together.</p>
        }
      </section>
    </div>
    <div class="figures">
      <hs-figure [id]="figures.float(axle())" />
      <hs-figure [id]="figures.shim(axle())" />
      <hs-figure [id]="figures.floatShim(axle())" />
    </div>
  `,
  styleUrls: ['../shared/sheet.scss', './carrier-sheet.scss'],
  styles: `
    :host {
      display: contents;
    }
    .columns {
      margin-top: 8px;
    }
    .advice {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
  `,
})
export class FloatPanel {
  protected readonly setUp = inject(SetUp);
  protected readonly truth = inject(PracticeTruth);
  private readonly bench = this.setUp.bench;
  protected readonly axle = this.setUp.axle;
  protected readonly figures = meshFigures;
  protected readonly kind = numberKind(setupSubjects.endFloat.value);
  protected readonly stages = [
    { stage: 'trial', label: 'End float, while tried' },
    { stage: 'final', label: 'End float, case bolted up' },
  ] as const;
  protected readonly now = computed(() => this.setUp.mesh()?.now ?? null);
  /** The float that was read; while none was, the middle of the band. */
  protected readonly coldMm = computed(() => {
    const mesh = this.setUp.mesh();
    return mesh ? ((mesh.now && floatOf(mesh.now)) ?? floatWanted(mesh)) : null;
  });
  protected readonly number = computed(() => this.setUp.number() + 1);
  protected readonly planned = computed(() => this.setUp.planned() !== null);
  private readonly laid = computed<Assembly>(() => this.setUp.planned() ?? this.now()?.value ?? NOTHING_IN);
  protected readonly text = computed(() => piecesText(this.laid().left));
  protected readonly readShim = computed(() => piecesReader('Shim', this.bench.system()));

  /** How the shim that is laid out differs from the one that is in. */
  protected readonly change = computed(() => {
    const now = this.now();
    if (!now || !this.planned()) return '';
    const mm = piecesMm(this.laid().left) - now.leftMm;
    return Math.abs(mm) < 0.0005
      ? ''
      : `${this.length(Math.abs(mm))} ${mm > 0 ? 'thicker' : 'thinner'} than what is in.`;
  });

  /** The shim for the middle of the band, out of the drawer where one is kept; null while it fits or can't be told. */
  protected readonly next = computed(() => {
    const mesh = this.setUp.mesh();
    const mm = mesh && floatShimOf(mesh);
    if (!mesh?.now || mm === null || Math.abs(mm - mesh.now.leftMm) < 0.005) return null;
    const { sides, piece } = this.setUp.stock();
    const pack = packFrom(mm, sides);
    const pieces = pack && pack.piecesMm.length > 0 ? pack.piecesMm.map((one) => piece(one)) : [piece(mm)];
    const from = pack && pack.piecesMm.length > 0 ? `${piecesText(pieces)} out of the drawer` : 'to be found';
    return { pieces, says: `Middle of the band: a shim of ${this.length(mm)}, ${from}.` };
  });

  private length(mm: number): string {
    return say(mm, 'length', this.bench.system());
  }

  protected lay(left: Entry[]): void {
    this.setUp.plan({ ...this.laid(), left });
  }

  protected assemble(): void {
    this.setUp.assemble(this.laid(), this.number());
  }

  protected subjectOf(number: number, stage: 'trial' | 'final'): SubjectOf {
    return setupSubjects.endFloat.of({ axle: this.axle(), assembly: String(number), stage });
  }

  protected entryOf(subject: SubjectOf): Entry | null {
    const value = this.bench.readingOf(subject)?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  }

  protected write(subject: SubjectOf, value: Entry | readonly Entry[]): void {
    this.bench.record(subject, value, this.setUp.instrument('backlash'));
  }
}
