import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { LIMITS, entryBase, entryOf, learnedFriction } from '@hot-spline/core';
import type { FrictionTable, Origin } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { Field } from '../shared/field';
import { numberReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { ORIGIN_OPTIONS } from './words';

/** What one kind of plate in one oil was measured to hold. Emits edits; keeps nothing itself. */
@Component({
  selector: 'hs-friction-table',
  imports: [Choice, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = spec();
    <div class="two">
      <hs-field
        [name]="prefix() + '-name'"
        label="Friction plates"
        placeholder="Bronze on steel"
        [text]="s.name"
        [read]="readName"
        [compact]="true"
        (taken)="edit({ name: $event })"
      />
      <hs-field
        [name]="prefix() + '-oil'"
        label="Oil and additive"
        placeholder="grade, additive"
        [text]="s.oil"
        [read]="readOil"
        [compact]="true"
        (taken)="edit({ oil: $event })"
      />
    </div>
    @if (learned(); as l) {
      <p class="learned" role="status">
        <span class="big mono">{{ l.mean }}</span>
        <span class="soft">{{ l.words }}</span>
      </p>
    }
    <ul>
      @for (reading of s.readings; track $index) {
        <li>
          <span class="mono">{{ reading.coefficient.typed }}</span>
          <span class="from"
            >{{ reading.kind === 'sliding' ? 'slipping' : 'breaking away' }}{{ reading.bedded ? ', bedded in' : '' }}:
            {{ reading.from }}</span
          >
          <span class="soft mono">{{ reading.on }}</span>
          <hs-choice
            [name]="prefix() + '-friction-origin-' + $index"
            [label]="reading.coefficient.typed + ' known from'"
            [labelHidden]="true"
            [options]="origins"
            [value]="reading.origin"
            (chosen)="setOrigin($index, $event)"
          />
          <hs-remove
            [what]="reading.coefficient.typed + ' of ' + reading.from"
            [asks]="true"
            (removed)="remove($index)"
          />
        </li>
      } @empty {
        <li class="soft">Nothing measured yet: readings come from the breakaway tab of a build, or are put in here.</li>
      }
    </ul>
    <hs-field
      [name]="prefix() + '-coefficient'"
      label="Add a coefficient by hand"
      placeholder="as read"
      text=""
      [read]="readCoefficient"
      [enterOnly]="true"
      verb="Add"
      [compact]="true"
      (taken)="$event !== null && add($event)"
    />
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 12px;
    }
    .learned {
      display: flex;
      align-items: baseline;
      gap: 12px;
    }
    .big {
      font-size: var(--text-figure);
    }
    li {
      display: grid;
      grid-template-columns: 64px minmax(0, 1fr) auto 130px auto;
      gap: 10px;
      align-items: center;
      font-size: var(--text-s);
    }
    li.soft {
      display: block;
    }
    .from {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    @media #{$narrow} {
      .two {
        grid-template-columns: 1fr;
      }
      li {
        grid-template-columns: 56px minmax(0, 1fr) auto auto;
      }
      li .soft {
        display: none;
      }
    }
  `,
})
export class FrictionTableEditor {
  readonly spec = input.required<FrictionTable>();
  readonly prefix = input.required<string>();
  readonly changed = output<Edit<FrictionTable>>();

  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly readName = textReader('Friction plates', 60, 1);
  protected readonly readOil = textReader('Oil', 60);
  protected readonly readCoefficient = numberReader('Coefficient', {
    min: 0.001,
    max: LIMITS.frictionCoefficient.max,
  });
  protected readonly learned = computed(() => {
    // What breaks away is another coefficient than what slips.
    const readings = this.spec()
      .readings.filter(({ kind }) => kind === 'static')
      .map(({ coefficient }) => entryBase(coefficient));
    if (readings.length === 0) return null;
    const { mean, plusMinus } = learnedFriction(readings);
    return {
      mean: mean.toFixed(3),
      words:
        plusMinus === null
          ? `mean of ${readings.length}; three readings or more say how far the next one may lie off`
          : `± ${plusMinus.toFixed(3)}: 19 of 20 next readings, from ${readings.length}`,
    };
  });

  protected edit(change: Partial<FrictionTable>): void {
    this.changed.emit((newest) => ({ ...newest, ...change }));
  }

  protected setOrigin(index: number, origin: Origin): void {
    this.changed.emit((newest) => ({
      ...newest,
      readings: newest.readings.map((one, i) => (i === index ? { ...one, origin } : one)),
    }));
  }

  protected remove(index: number): void {
    this.changed.emit((newest) => ({ ...newest, readings: newest.readings.filter((_, i) => i !== index) }));
  }

  protected add(value: number): void {
    const on = new Date().toISOString().slice(0, 10);
    const reading = {
      coefficient: entryOf(value, ''),
      from: 'put in by hand',
      on,
      kind: 'static' as const,
      bedded: false,
      origin: 'not-said' as const,
    };
    this.changed.emit((newest) => ({ ...newest, readings: [...newest.readings, reading] }));
  }
}
