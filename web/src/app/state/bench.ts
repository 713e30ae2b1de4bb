import { Injectable, computed, inject } from '@angular/core';
import { InputError, type Entry } from '@hot-spline/core';
import {
  buildSchema,
  deriveBuild,
  drivenAxles,
  parseOrRefuse,
  platesOf,
  readingsInForce,
  subjectKey,
  type Axle,
  type Build,
  type PlateSpec,
  type Subject,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { localDay } from '../shared/day';
import { editorActions, editorFeature } from './editor';
import { uiActions, uiFeature } from './ui';

/** The open build as the sheets see it: derived figures, and the ways to change it. */
@Injectable({ providedIn: 'root' })
export class Bench {
  private readonly store = inject(Store);
  private readonly messages = inject(MessageService);

  readonly editor = this.store.selectSignal(editorFeature.selectEditorState);
  readonly ledger = this.store.selectSignal(editorFeature.selectLedger);
  readonly system = this.store.selectSignal(uiFeature.selectSystem);
  private readonly chosenAxle = this.store.selectSignal(uiFeature.selectAxle);
  private readonly present = this.store.selectSignal(editorFeature.selectPresent);
  private readonly preview = this.store.selectSignal(editorFeature.selectPreview);

  /** What is shown: what is being dragged, else what is kept. */
  readonly build = computed(() => this.preview() ?? this.present());
  readonly previewing = computed(() => this.preview() !== null);
  readonly axleName = computed(() => {
    const build = this.build();
    const driven = build ? drivenAxles(build) : [];
    return driven.includes(this.chosenAxle()) ? this.chosenAxle() : (driven[0] ?? 'rear');
  });
  readonly axle = computed<Axle | null>(() => this.build()?.axles[this.axleName()] ?? null);
  readonly plate = computed(() => this.axle()?.unit.plate ?? null);
  /** Null where the unit has no plates at work, even if some are kept for it. */
  readonly plates = computed(() => {
    const unit = this.axle()?.unit;
    return unit ? platesOf(unit) : null;
  });
  readonly derived = computed(() => {
    const build = this.build();
    return build ? deriveBuild(build, this.ledger(), this.axleName(), localDay(new Date())) : null;
  });
  readonly readings = computed(() => readingsInForce(this.ledger()));
  readonly canUndo = computed(() => this.editor().past.length > 0);
  readonly canRedo = computed(() => this.editor().future.length > 0);

  /**
   * Changes the specification. The recipe works on a copy; a result that the schema refuses is not taken, and says
   * which field is wrong.
   * @returns whether the change was taken
   */
  change(recipe: (draft: Build) => void, { undoable = true } = {}): boolean {
    const present = this.present();
    if (!present) return false;
    const draft = structuredClone(present) as Build;
    recipe(draft);
    try {
      this.store.dispatch(editorActions.changed({ build: parseOrRefuse(buildSchema, draft, 'build'), undoable }));
      return true;
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.store.dispatch(editorActions.previewDropped());
      this.messages.add({ severity: 'error', summary: 'Not taken', detail: error.message, life: 8000 });
      return false;
    }
  }

  /** Shows a change everywhere without keeping it, for as long as something is dragged. */
  drag(recipe: (draft: Build) => Build): void {
    const present = this.present();
    if (present) this.store.dispatch(editorActions.previewed({ build: recipe(present) }));
  }

  drop(): void {
    this.store.dispatch(editorActions.previewDropped());
  }

  changeAxle(recipe: (axle: Axle) => void): boolean {
    const name = this.axleName();
    return this.change((draft) => {
      const axle = draft.axles[name];
      if (axle) recipe(axle);
    });
  }

  changePlate(recipe: (plate: PlateSpec) => void): boolean {
    return this.changeAxle((axle) => {
      if (axle.unit.plate) recipe(axle.unit.plate);
    });
  }

  undo(): void {
    this.store.dispatch(editorActions.undone());
  }

  redo(): void {
    this.store.dispatch(editorActions.redone());
  }

  /** Writes a reading to the ledger with the time of now. */
  record(subject: Subject, value: Entry, instrument: string, note?: string): void {
    const entry = {
      kind: 'reading' as const,
      id: crypto.randomUUID(),
      at: new Date().toISOString(),
      subject,
      value,
      instrument,
      ...(note === undefined ? {} : { note }),
    };
    this.store.dispatch(editorActions.recorded({ entry }));
  }

  voidReading(id: string, reason: string): void {
    const entry = { kind: 'void' as const, id: crypto.randomUUID(), at: new Date().toISOString(), voids: id, reason };
    this.store.dispatch(editorActions.recorded({ entry }));
  }

  readingOf(subject: Subject) {
    return this.readings().get(subjectKey(subject)) ?? null;
  }

  figure(id: string) {
    return this.derived()?.figures.get(id) ?? null;
  }

  openWorking(figure: string): void {
    this.store.dispatch(uiActions.workingOpened({ figure }));
  }
}
