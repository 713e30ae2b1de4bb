import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { type AxleSpec, newAxleSpec } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import type { Edit } from '../base/edit';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { AxleSpecEditor } from '../library/axle-spec-editor';
import { Library } from '../state/library';
import { Turns } from './turns';

/** What the followed axle is: taken from the shop's library or described here, with match numbers and carrier. */
@Component({
  selector: 'hs-identity-tab',
  imports: [AxleSpecEditor, Choice, Field, RouterLink, Turns, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.axle(); as axle) {
      @let name = bench.axleName();
      <div class="head">
        <hs-choice
          [name]="'axle-spec-' + name"
          label="From the library"
          [options]="options()"
          [value]="same()"
          (chosen)="take($event)"
        />
        @if (axle.carrier !== '' || (axle.identity?.carriers?.length ?? 0) > 0) {
          <hs-choice
            [name]="'carrier-' + name"
            label="Carrier in it"
            [options]="carriers()"
            [value]="axle.carrier"
            (chosen)="setCarrier($event)"
          />
        }
        <hs-field
          [name]="'match-ring-' + name"
          label="Match number, ring"
          placeholder="as stamped"
          [text]="axle.matchNumbers.ring"
          [read]="readMark"
          [compact]="true"
          (taken)="setMark('ring', $event)"
        />
        <hs-field
          [name]="'match-pinion-' + name"
          label="pinion"
          placeholder="as stamped"
          [text]="axle.matchNumbers.pinion"
          [read]="readMark"
          [compact]="true"
          (taken)="setMark('pinion', $event)"
        />
        <p class="match" role="status">
          @if (matched(); as verdict) {
            <hs-verdict [verdict]="verdict" />
            {{ verdict === 'fits' ? 'a pair' : verdict === 'stop' ? 'not a pair' : 'read the other one' }}
          }
        </p>
      </div>
      @if (turned()) {
        <hs-turns />
      }
      @if (axle.identity; as spec) {
        <hs-axle-spec [spec]="spec" [prefix]="name" (changed)="edit($event)" />
        <div class="keep">
          <button type="button" class="quiet" [disabled]="same() !== ''" (click)="keep(spec)">
            {{ same() === '' ? 'Keep in the library' : 'In the library as it is' }}
          </button>
          @if (known(); as one) {
            @if (same() === '') {
              <button type="button" class="quiet" (click)="replace(one.id, spec)">
                Change “{{ spec.name }}” there
              </button>
            }
          }
          <a class="quiet" routerLink="/library">Library</a>
          @if (kept()) {
            <span class="soft" role="status">{{ problem() ?? 'Kept in the library.' }}</span>
          }
        </div>
      } @else {
        <div class="empty">
          <h2>Nobody has identified this axle yet</h2>
          <p>Cover shape, bolt count and ring diameter say which one it is; count the teeth, a tag lies.</p>
          <button type="button" class="quiet" (click)="describe()">Describe it here</button>
        </div>
      }
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      padding-bottom: 12px;
    }
    .head {
      display: grid;
      grid-template-columns: 1.6fr 1fr 0.9fr 0.9fr auto;
      gap: 8px;
      align-items: start;
    }
    .match {
      display: flex;
      gap: 6px;
      align-items: center;
      min-width: 92px;
      padding-top: 26px;
      font-size: var(--text-s);
    }
    .keep {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .empty {
      display: grid;
      gap: 10px;
      justify-items: start;
      padding: 30px 0;
    }
    @media #{$narrow} {
      .head {
        grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      }
    }
  `,
})
export class IdentityTab {
  protected readonly bench = inject(Bench);
  private readonly library = inject(Library);
  protected readonly problem = computed(() => this.library.state().problem);
  protected readonly kept = signal(false);
  protected readonly readMark = textReader('Match number', 30);

  private readonly axles = this.library.ofKind('axle');
  protected readonly options = computed(() => [
    { value: '', label: this.bench.axle()?.identity ? 'described here' : 'choose…' },
    ...this.axles().map(({ id, spec }) => ({ value: id, label: spec.name })),
  ]);
  /** The library spec that this axle is, word for word. */
  protected readonly same = computed(() => {
    const identity = JSON.stringify(this.bench.axle()?.identity ?? null);
    return this.axles().find(({ spec }) => JSON.stringify(spec) === identity)?.id ?? '';
  });
  protected readonly known = computed(() => {
    const name = this.bench.axle()?.identity?.name;
    return this.axles().find(({ spec }) => spec.name === name) ?? null;
  });
  protected readonly carriers = computed(() => {
    const axle = this.bench.axle();
    const names = new Set([axle?.carrier ?? '', ...(axle?.identity?.carriers ?? []).map(({ name }) => name)]);
    return [
      { value: '', label: 'not known yet' },
      ...[...names].filter((name) => name !== '').map((value) => ({ value, label: value })),
    ];
  });
  /** A prop shaft turns it, and nothing else is between. */
  protected readonly turned = computed(() => {
    const construction = this.bench.axle()?.identity?.construction.value;
    return construction !== 'electric-reduction' && construction !== 'transaxle';
  });
  protected readonly matched = computed(() => {
    const finding = this.bench.derived()?.findings.find(({ id }) => id === `identity.match.${this.bench.axleName()}`);
    return finding?.verdict ?? null;
  });

  protected take(id: string): void {
    const spec = this.axles().find((one) => one.id === id)?.spec;
    if (spec) this.identify(() => structuredClone(spec));
  }

  protected describe(): void {
    this.identify(() => newAxleSpec(`${this.bench.build()?.name ?? 'Axle'} ${this.bench.axleName()}`));
  }

  protected edit(edit: Edit<AxleSpec>): void {
    this.identify((newest) => newest && edit(newest));
  }

  private identify(as: (newest: AxleSpec | null) => AxleSpec | null): void {
    this.kept.set(false);
    this.bench.changeAxle((axle) => {
      axle.identity = as(axle.identity);
      if (!axle.identity?.carriers.some(({ name }) => name === axle.carrier)) axle.carrier = '';
    });
  }

  protected setCarrier(carrier: string): void {
    this.bench.changeAxle((axle) => (axle.carrier = carrier));
  }

  protected setMark(part: 'ring' | 'pinion', mark: string): void {
    this.bench.changeAxle((axle) => (axle.matchNumbers[part] = mark));
  }

  protected keep(spec: AxleSpec): void {
    this.kept.set(true);
    this.library.add(spec);
  }

  protected replace(id: string, spec: AxleSpec): void {
    this.kept.set(true);
    this.library.change(id, 'axle', () => spec);
  }
}
