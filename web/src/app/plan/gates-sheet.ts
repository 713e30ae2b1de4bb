import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { formatIn, unitLabel } from '@hot-spline/core';
import { GATES, turningText, type GateName, type GateState } from '@hot-spline/model';
import { BeginPanel } from '../mesh/begin-panel';
import { SetUp } from '../mesh/set-up';
import { Field } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { textReader } from '../shared/readers';
import { SheetHead } from '../shared/sheet-head';
import { VerdictMark } from '../shared/verdict';
import { VoidButton } from '../shared/void-button';
import { Drafts } from '../shared/drafts';
import { sayMoment } from '../base/day';

/** The two gates of a set-up: what each needs, met or not; a name opens it. */
@Component({
  selector: 'hs-gates-sheet',
  imports: [BeginPanel, Field, SheetHead, VerdictMark, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head title="Gates" about="What can’t be taken back waits for a name." [perAxle]="true" />
    @if (gates().length) {
      <div class="columns">
        @for (gate of gates(); track gate.gate) {
          <section [attr.aria-label]="'Gate ' + gate.gate">
            <h2>
              <hs-verdict
                [verdict]="
                  gate.needs.length === 0 ? 'fits' : gate.open ? (gate.signature?.note ? 'watch' : 'fits') : 'not-yet'
                "
              />
              Gate {{ gate.gate }}
            </h2>
            @if (gate.needs.length === 0) {
              <p class="soft">Nothing of this job waits for it: no setting is open that would undo it.</p>
            } @else {
              <p class="soft">{{ gate.about }}</p>
            }
            @if (waiting(gate.gate); as all) {
              @if (all.length) {
                <p class="waiting">
                  Waits for it: <strong>{{ all.join(', ') }}</strong>{{
                    gate.gate === 'A' ? '. The next change of what is still open would undo it.' : '.'
                  }}
                </p>
              }
            }
            <ul>
              @for (need of gate.needs; track need.need) {
                <li>
                  <hs-verdict [verdict]="need.met ? 'fits' : 'not-yet'" />
                  <span>{{ need.need }}</span>
                  <span class="soft">{{ need.says }}</span>
                </li>
              }
            </ul>
            @if (gate.signature; as signature) {
              <p class="signed" tabindex="-1" [id]="gate.open ? 'sign-' + gate.gate + '-' + axle() : null">
                <span
                  >Signed by <strong>{{ signature.name }}</strong>, {{ when(signature.at)
                  }}{{ gate.open ? '' : ': no longer what is in.' }}</span
                >
                @if (signature.note; as note) {
                  <span class="note">Opened with a note: “{{ note }}”</span>
                }
                <span class="mono soft">{{ figuresOf(signature.figures) }}</span>
                <hs-void [id]="signature.id" [what]="'Signature of Gate ' + gate.gate" />
              </p>
            }
            @if (!gate.open && gate.needs.length) {
              @if (!gate.met) {
                <p>
                  Refused: {{ missing(gate) }}. It can be opened all the same with a note, which stays on every sheet.
                </p>
                <hs-field
                  [name]="'note-' + gate.gate + '-' + axle()"
                  label="Why it is opened all the same"
                  [text]="notes[gate.gate]()"
                  [read]="readNote"
                  (taken)="keepNote(gate.gate, $event)"
                />
              }
              @if (gate.met || notes[gate.gate]() !== '') {
                <hs-field
                  [name]="'sign-' + gate.gate + '-' + axle()"
                  [label]="gate.met ? 'Sign with your name' : 'Open with the note: your name'"
                  [text]="''"
                  [placeholder]="who() || 'name'"
                  [read]="readName"
                  [enterOnly]="true"
                  (taken)="sign(gate, $event)"
                />
              } @else {
                <button type="button" class="quiet" disabled [id]="'sign-' + gate.gate + '-' + axle()">Sign</button>
              }
            }
          </section>
        }
      </div>
      <p class="caution" role="note">
        {{
          setUp.mesh()?.ringBy === 'none'
            ? 'Behind Gate A the case closes; behind Gate B high voltage comes back on, by a trained hand.'
            : 'Behind Gate A bearings are pressed and spacers crushed; behind Gate B the cover closes.'
        }}
        Our bands are guards: the maker’s sheet, local rules and licensed practice win.
      </p>
    } @else if (setUp.mesh()) {
      <div class="empty">
        <h2>Nothing to sign yet</h2>
        <p>Put the axle together and read it first.</p>
      </div>
    } @else {
      <hs-begin />
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    @use 'breakpoints' as *;
    .columns {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      gap: 12px 28px;
      margin-bottom: 12px;
    }
    section {
      display: grid;
      gap: 8px;
      align-content: start;
    }
    h2 {
      display: flex;
      gap: 8px;
      align-items: center;
      font-size: var(--text-l);
    }
    li {
      display: grid;
      grid-template-columns: 22px minmax(0, 1fr) auto;
      gap: 6px;
      align-items: center;
      min-height: 34px;
      border-bottom: 1px solid var(--rule);
      font-size: var(--text-s);
    }
    p {
      font-size: var(--text-s);
    }
    .signed {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    .note {
      color: var(--ochre-text);
    }
    @media #{$narrow} {
      .columns {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class GatesSheet {
  readonly at = input<string>();
  protected readonly setUp = inject(SetUp);
  private readonly drafts = inject(Drafts);
  protected readonly axle = this.setUp.axle;
  protected readonly who = this.setUp.bench.who;
  protected readonly readName = textReader('Name', 60, 1);
  protected readonly readNote = textReader('Note', 300, 1);
  protected readonly gates = computed(() => {
    const gates = this.setUp.gates();
    // Where the work is planned, what waits is known before anything was read.
    const planned = this.setUp.bench.axle()?.work !== null;
    return gates && (planned || this.setUp.mesh()?.now) ? GATES.map((name) => gates[name]) : [];
  });
  private readonly key = (gate: GateName): string =>
    `${this.setUp.bench.editor().id ?? ''}.gate.${gate}.${this.axle()}`;
  protected readonly notes = {
    A: linkedSignal(() => this.drafts.read(this.key('A')) ?? ''),
    B: linkedSignal(() => this.drafts.read(this.key('B')) ?? ''),
  };

  constructor() {
    jumpTo(this.at);
  }

  /** Steps of the job that wait for a gate, and are not done yet. */
  protected waiting(gate: GateName): readonly string[] {
    const state = this.setUp.bench.derived()?.work[this.axle()];
    return (state?.steps ?? [])
      .filter(
        ({ step, status, passed }) => step.behind === gate && status !== 'done' && status !== 'skipped' && !passed,
      )
      .map(({ step }) => step.title);
  }

  protected missing({ needs }: GateState): string {
    return needs
      .filter(({ met }) => !met)
      .map(({ need }) => need.charAt(0).toLowerCase() + need.slice(1))
      .join(', ');
  }

  protected keepNote(gate: GateName, note: string): void {
    this.notes[gate].set(note);
    this.drafts.write(this.key(gate), note);
  }

  protected sign({ gate, key, figures, met }: GateState, name: string): void {
    this.setUp.bench.sign(key, name, figures, met ? '' : this.notes[gate]());
    this.notes[gate].set('');
    this.drafts.write(this.key(gate), null);
  }

  protected when(at: string): string {
    return sayMoment(at);
  }

  protected figuresOf(figures: Readonly<Record<string, number>>): string {
    const system = this.setUp.bench.system();
    const small = (mm: number): string => {
      const { text, unit } = formatIn(mm, 'length', system, undefined, 'small');
      return `${text} ${unitLabel(unit)}`;
    };
    const named: readonly (readonly [string, string, (value: number) => string])[] = [
      ['assembly', 'assembly', String],
      [`mesh.${this.axle()}.shim`, 'shim', small],
      [`mesh.${this.axle()}.backlash`, 'backlash', small],
      [`mesh.${this.axle()}.float`, 'float', small],
      [`preload.${this.axle()}.pinion`, 'preload', (nm) => turningText(nm, system)],
    ];
    return named
      .flatMap(([key, label, text]) => (figures[key] === undefined ? [] : [`${label} ${text(figures[key])}`]))
      .join(' · ');
  }
}
