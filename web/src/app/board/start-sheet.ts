import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  afterNextRender,
  computed,
  inject,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { USES, startBuild, startLike, type Build, type StartAnswers, type Use } from '@hot-spline/model';
import { InputError } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { USE_WORDS } from '../identity/words';
import { Library } from '../state/library';
import { CONSTRUCTION_OPTIONS, constructionWords } from '../library/words';
import { Choice, type Option } from '../shared/choice';
import { Radios } from '../shared/radios';
import { api } from '../state/api';
import { boardActions, boardFeature } from '../state/board';

/** What a new build is asked first; whatever is not answered begins as assumed. */
@Component({
  selector: 'hs-start-sheet',
  imports: [Choice, Radios],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="start-title">
      <h2 id="start-title">New build</h2>
      <form (submit)="start($event)">
        <div class="row">
          <div>
            <label for="start-name">Name of the new build</label>
            <input
              #name
              id="start-name"
              class="control"
              autocomplete="off"
              maxlength="80"
              [value]="named()"
              (input)="named.set(name.value)"
              (keydown.enter)="goOn($event, vehicle)"
            />
          </div>
          <div class="wide">
            <label for="start-vehicle">Car, or class of car</label>
            <input
              #vehicle
              id="start-vehicle"
              class="control"
              autocomplete="off"
              maxlength="120"
              placeholder="e.g. light coupe, 1200 kg"
              [value]="car()"
              (input)="car.set(vehicle.value)"
              (keydown.enter)="goOn($event, first())"
            />
          </div>
        </div>
        <hs-choice name="start-like" label="Begin" [options]="origins()" [value]="like()" (chosen)="like.set($event)" />
        @if (like() === '') {
          <div class="row">
            <hs-choice
              name="start-use"
              label="What it is for"
              [options]="uses"
              [value]="use()"
              (chosen)="use.set($event)"
            />
            <hs-choice
              name="start-axle"
              label="Axle"
              [options]="axles()"
              [value]="axle()"
              (chosen)="axle.set($event)"
            />
          </div>
          <div class="row">
            <hs-radios
              name="start-driven"
              label="Driven axles"
              [options]="drives"
              [value]="driven()"
              (chosen)="driven.set($event)"
            />
            <hs-radios
              name="start-power"
              label="Power"
              [options]="powers"
              [value]="power()"
              (chosen)="power.set($event)"
            />
          </div>
          <p class="soft">
            Engine, gears, tyres, unit and weights begin as stand-ins, marked “assumed”. They judge nothing until you
            have said them.
          </p>
        }
        <div class="row end">
          <button type="submit" class="quiet go" [disabled]="named().trim() === '' || busy()">Start the build</button>
          <button type="button" class="quiet bare" (click)="closed.emit()">Not now</button>
        </div>
      </form>
    </section>
  `,
  styles: `
    section {
      padding: var(--space-4);
      margin-bottom: var(--space-4);
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
    }
    h2 {
      margin-bottom: var(--space-3);
      font-size: var(--text-l);
    }
    form {
      display: grid;
      gap: var(--space-3);
    }
    .row {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
      gap: var(--space-3);
    }
    .end {
      display: flex;
    }
    label {
      display: block;
      margin-bottom: 2px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    .go {
      border-color: var(--blue);
      color: var(--blue);
      font-weight: 600;
    }
  `,
})
export class StartSheet {
  readonly started = output<Build>();
  readonly closed = output<void>();

  private readonly library = inject(Library);
  private readonly messages = inject(MessageService);
  private readonly store = inject(Store);
  private readonly builds = this.store.selectSignal(boardFeature.selectBuilds);

  protected readonly named = signal('');
  protected readonly car = signal('');
  protected readonly like = signal('');
  protected readonly use = signal<Use>('street');
  protected readonly axle = signal('');
  protected readonly driven = signal<Build['driven']>('rear');
  protected readonly power = signal<StartAnswers['power']>('manual');
  protected readonly busy = signal(false);

  protected readonly uses: Option<Use>[] = USES.map((value) => ({ value, label: USE_WORDS[value] ?? value }));
  protected readonly drives: Option<Build['driven']>[] = [
    { value: 'rear', label: 'Rear' },
    { value: 'front', label: 'Front' },
    { value: 'both', label: 'Both' },
  ];
  protected readonly powers: Option<StartAnswers['power']>[] = [
    { value: 'manual', label: 'Clutch' },
    { value: 'automatic', label: 'Converter' },
    { value: 'electric', label: 'Electric' },
  ];
  private readonly specs = this.library.ofKind('axle');
  protected readonly axles = computed<Option<string>[]>(() => [
    { value: '', label: 'not identified yet' },
    ...this.specs().map(({ id, spec }) => ({ value: `spec:${id}`, label: `${spec.name}, from the library` })),
    ...CONSTRUCTION_OPTIONS.map(({ value, label }) => ({ value: `of:${value}`, label })),
  ]);
  protected readonly origins = computed<Option<string>[]>(() => [
    { value: '', label: 'from a few questions' },
    ...this.builds()
      .filter(({ unreadable }) => unreadable === null)
      .map(({ id, name }) => ({ value: id, label: `like ${name}` })),
  ]);

  private readonly nameBox = viewChild.required<ElementRef<HTMLInputElement>>('name');

  constructor() {
    afterNextRender(() => this.nameBox().nativeElement.focus());
    this.store.dispatch(boardActions.opened());
    this.library.open();
  }

  /** Enter goes on to the next question: a build starts by its button, never from a name and guesses. */
  protected goOn(event: Event, next: HTMLElement | null): void {
    event.preventDefault();
    next?.focus();
  }

  protected first(): HTMLElement | null {
    return document.getElementById('start-like');
  }

  private answers(): StartAnswers {
    const chosen = this.axle();
    const spec = this.specs().find(({ id }) => chosen === `spec:${id}`)?.spec;
    const construction = CONSTRUCTION_OPTIONS.find(({ value }) => chosen === `of:${value}`)?.value;
    return {
      name: this.named().trim(),
      vehicle: this.car().trim(),
      use: this.use(),
      driven: this.driven(),
      power: this.power(),
      axle: spec ?? construction ?? null,
    };
  }

  protected async start(event: Event): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    try {
      const answers = this.answers();
      if (answers.name === '') throw new InputError('Name', 'Name is empty.', '1 to 80 characters');
      if (this.like() === '') {
        const { axle } = answers;
        this.started.emit(startBuild(answers, typeof axle === 'string' ? constructionWords(axle) : ''));
        return;
      }
      const { build } = await api.build(this.like());
      const vehicle = answers.vehicle === '' ? build.vehicle : answers.vehicle;
      this.started.emit({ ...startLike(build, answers.name), vehicle });
    } catch (error) {
      const detail = error instanceof Error ? error.message : String(error);
      this.messages.add({ severity: 'error', summary: 'Not started', detail, life: 8000 });
    } finally {
      this.busy.set(false);
    }
  }
}
