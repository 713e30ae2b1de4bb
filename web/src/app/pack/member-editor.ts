import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { InputError, LIMITS, entryBase } from '@hot-spline/core';
import { SIDES, isSpring, readingEntry, thickness, type Member, type MemberState, type Side } from '@hot-spline/model';
import { ToggleSwitch } from 'primeng/toggleswitch';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { Radios } from '../shared/radios';
import { countReader } from '../shared/readers';
import { Bench } from '../state/bench';
import { ConditionEditor, editCondition, type ConditionEdit } from './condition';
import { memberEntry, memberFields, setMemberEntry, thicknessLabel } from './member-fields';
import { KIND_WORDS } from './members';
import { readSpringPoints, type Points } from './spring-points';

/** One piece, its kind on this side, its kind on both, or those that are marked. */
export type Scope = 'one' | 'side' | 'kind' | 'marked';
export interface ScopeOption {
  readonly value: Scope;
  readonly label: string;
  readonly ids: readonly string[];
}

/** One piece of a pack: what it is, catalogue and measured thickness, place in the order. */
@Component({
  selector: 'hs-member-editor',
  imports: [ConditionEditor, EntryField, Field, FormsModule, Radios, ToggleSwitch],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let m = state().member;
    <div class="head">
      <h2 class="section-title">{{ side() }} {{ index() + 1 }}: {{ kindWords() }}</h2>
      <button type="button" class="quiet" [disabled]="index() === 0" (click)="moved.emit(index() - 1)">Inwards</button>
      <button type="button" class="quiet" [disabled]="index() >= count() - 1" (click)="moved.emit(index() + 1)">
        Outwards
      </button>
      <button type="button" class="quiet" (click)="removed.emit()">
        <i class="pi pi-trash" aria-hidden="true"></i>Remove
      </button>
      <button type="button" class="quiet icon bare" (click)="closed.emit()" aria-label="Close">
        <i class="pi pi-times" aria-hidden="true"></i>
      </button>
    </div>
    @if (scopes().length > 1 || marking()) {
      <div class="scope">
        <hs-radios
          [name]="'scope-' + m.id"
          label="What is changed below goes for"
          [options]="scopeOptions()"
          [value]="scope()"
          (chosen)="scoped.emit($event)"
        />
        <button type="button" class="quiet" [attr.aria-pressed]="marking()" (click)="marks.emit(!marking())">
          {{ marking() ? 'Touch others of its kind' : 'Mark more' }}
        </button>
      </div>
    }
    <div class="field-grid">
      <hs-field
        [name]="'member-label-' + m.id"
        label="Name"
        [text]="m.label"
        [read]="readLabel"
        (taken)="edit(labelled($event))"
      />
      <hs-entry
        [name]="'member-thickness-' + m.id"
        [label]="thicknessLabel(m.kind)"
        quantity="length"
        [range]="range"
        [usual]="usual()"
        [entry]="m.thickness"
        (taken)="edit(sized('thickness', $event))"
      />
      <hs-entry
        [name]="'member-measured-' + m.id"
        label="Measured"
        quantity="length"
        [range]="range"
        [usual]="near()"
        [entry]="measured()"
        [wanted]="wanted()"
        placeholder="not yet"
        [enterOnly]="true"
        (taken)="measure($event)"
      />
      @if (m.kind === 'eared' || m.kind === 'splined' || m.kind === 'wave') {
        <div class="switch">
          <label [for]="'lined-' + m.id">Carries friction lining</label>
          <p-toggleswitch [inputId]="'lined-' + m.id" [ngModel]="m.lined" (ngModelChange)="edit(linedAs($event))" />
        </div>
      }
      @for (field of fields(); track field.key) {
        <hs-entry
          [name]="'member-' + field.key + '-' + m.id"
          [label]="field.label"
          [quantity]="field.quantity"
          [range]="field.range"
          [usual]="field.usual"
          [entry]="entryOf(m, field.key)"
          (taken)="edit(sized(field.key, $event))"
        />
      }
      @if (m.kind === 'coils') {
        <hs-field
          [name]="'member-count-' + m.id"
          label="Coils side by side"
          [text]="'' + m.count"
          [read]="readCount"
          (taken)="edit(counted($event))"
        />
      }
      @if (m.kind === 's-spring') {
        <hs-field
          [name]="'member-points-' + m.id"
          label="Measured: height force; height force"
          placeholder="24 mm 1200 N; 22 mm 1900 N"
          [text]="pointsText()"
          [read]="readPoints"
          (taken)="edit(measuredAt($event))"
        />
      }
      @if (m.kind === 'coils' || m.kind === 's-spring') {
        <div class="switch">
          <label [for]="'shared-' + m.id">Between the gears, presses both packs</label>
          <p-toggleswitch [inputId]="'shared-' + m.id" [ngModel]="m.shared" (ngModelChange)="edit(sharedAs($event))" />
        </div>
      }
      @if (m.kind === 'spring') {
        <hs-radios
          [name]="'hollow-' + m.id"
          label="Hollow side faces"
          [options]="hollows"
          [value]="m.hollow"
          (chosen)="edit(hollowAs($event))"
        />
      }
    </div>
    <hs-condition
      class="seen"
      [name]="'seen-' + m.id"
      [what]="side() + ' ' + (index() + 1) + ' ' + m.label"
      [condition]="m.condition"
      [change]="seen()"
    />
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 0 0;
      scroll-margin-bottom: 96px;
      border-top: 1px solid var(--rule);
    }
    .head {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
      margin-bottom: 6px;
    }
    .head h2 {
      margin: 0 auto 0 0;
    }
    .head h2::first-letter {
      text-transform: uppercase;
    }
    .scope {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
      margin-bottom: 6px;
    }
    .seen {
      margin-top: 10px;
    }
    .switch {
      display: grid;
      gap: 8px;
    }
    .switch label,
    .small {
      display: block;
      font-size: var(--text-s);
      color: var(--soft);
      margin-bottom: 2px;
    }
  `,
})
export class MemberEditor {
  readonly side = input.required<Side>();
  readonly state = input.required<MemberState>();
  readonly index = input.required<number>();
  readonly count = input.required<number>();
  /** What a change goes for: what there is to choose from, and what is chosen. */
  readonly scopes = input<readonly ScopeOption[]>([]);
  readonly scope = input<Scope>('one');
  readonly scoped = output<Scope>();
  readonly marking = input(false);
  readonly marks = output<boolean>();
  readonly moved = output<number>();
  readonly removed = output<void>();
  readonly closed = output<void>();

  private readonly bench = inject(Bench);
  protected readonly range = LIMITS.thicknessMm;
  protected readonly usual = computed(() =>
    isSpring(this.state().member) ? ([0.1, 60] as const) : ([0.1, 12] as const),
  );
  protected readonly fields = computed(() => memberFields(this.state().member.kind));
  protected readonly entryOf = memberEntry;
  protected readonly thicknessLabel = thicknessLabel;
  protected readonly readCount = countReader('Coils', 1, 24);
  protected readonly hollows = [
    { value: 'in' as const, label: 'in' },
    { value: 'out' as const, label: 'out' },
  ];
  protected readonly kindWords = computed(() => KIND_WORDS[this.state().member.kind]);
  protected readonly wanted = computed(() => entryBase(this.state().member.thickness));
  /** A plate wears and swells by less than a fifth; any shim may lie there. */
  protected readonly near = computed(() => {
    const wanted = this.wanted();
    return this.state().member.kind === 'shim'
      ? ([wanted / 3, wanted * 3] as const)
      : ([0.8 * wanted, 1.2 * wanted] as const);
  });
  protected readonly readLabel = (text: string): Understood<string> => {
    const value = text.trim();
    if (value.length > 60) throw new InputError('Name', 'Name is too long.', 'up to 60 characters');
    return { value, said: '' };
  };

  protected readonly pointsText = computed(() => {
    const { member } = this.state();
    return member.kind === 's-spring'
      ? member.points.map(({ height, force }) => `${height.typed} ${force.typed}`).join('; ')
      : '';
  });
  protected readonly readPoints = (text: string): Understood<Points> => readSpringPoints(text, this.bench.system());

  /** Of this piece, also when another one is shown by then. */
  protected readonly seen = computed(() => {
    const side = this.side();
    const { id } = this.state().member;
    return (edit: ConditionEdit): void => this.editOf(side, id, (member) => editCondition(member, edit));
  });

  protected readonly scopeOptions = computed(() => [...this.scopes()]);
  private readonly ids = computed(
    () => this.scopes().find(({ value }) => value === this.scope())?.ids ?? [this.state().member.id],
  );

  /** Changes this piece, or all that the change goes for; one undo takes it back. */
  protected edit(recipe: (member: Member) => void): void {
    const ids = this.ids();
    this.bench.changePlate((plate) => {
      for (const side of SIDES)
        for (const member of plate.packs[side].members) if (ids.includes(member.id)) recipe(member);
    });
  }

  private editOf(side: Side, id: string, recipe: (member: Member) => void): void {
    this.bench.changePlate((plate) => {
      const member = plate.packs[side].members.find((candidate) => candidate.id === id);
      if (member) recipe(member);
    });
  }

  protected labelled(label: string): (member: Member) => void {
    return (member) => (member.label = label);
  }

  protected linedAs(lined: boolean): (member: Member) => void {
    return (member) => {
      if ('lined' in member) member.lined = lined;
    };
  }

  protected hollowAs(hollow: 'in' | 'out'): (member: Member) => void {
    return (member) => {
      if (member.kind === 'spring') member.hollow = hollow;
    };
  }

  protected sharedAs(shared: boolean): (member: Member) => void {
    return (member) => {
      if (member.kind === 'coils' || member.kind === 's-spring') member.shared = shared;
    };
  }

  protected counted(count: number): (member: Member) => void {
    return (member) => {
      if (member.kind === 'coils') member.count = count;
    };
  }

  protected measuredAt(points: Points): (member: Member) => void {
    return (member) => {
      if (member.kind === 's-spring') member.points = points;
    };
  }

  protected readonly measured = computed(() => {
    const { reading } = this.state();
    return reading ? readingEntry(reading) : null;
  });

  protected sized(key: string, { entry }: TakenEntry): (member: Member) => void {
    return (member) => setMemberEntry(member, key, entry);
  }

  protected measure({ entry }: TakenEntry): void {
    const packs = this.bench.plate()?.packs;
    for (const side of SIDES)
      for (const { id } of packs?.[side].members ?? [])
        if (this.ids().includes(id))
          this.bench.record(thickness.of({ axle: this.bench.axleName(), side, memberId: id }), entry, 'Micrometer');
  }
}
