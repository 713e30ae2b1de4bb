import { Injectable, computed, inject, isDevMode } from '@angular/core';
import { InputError, type Entry } from '@hot-spline/core';
import {
  BuildDeriver,
  buildSchema,
  drivenAxles,
  keyOfSubject,
  parseOrRefuse,
  platesOf,
  readingsInForce,
  settleAssumed,
  subjects,
  share,
  type Axle,
  type Build,
  type FigureId,
  type GaugeSent,
  type LedgerEntry,
  type OperatingPoint,
  type PlateSpec,
  type ReadingValue,
  type SubjectOf,
} from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { localDay } from '../base/day';
import { editorActions, editorFeature } from './editor';
import { lookingActions, lookingFeature } from './looking';
import { LOOKS_ON, MayWrite } from './may-write';
import { ReadBy } from './read-by';
import { ShopSetUps } from './set-ups';
import { Sound } from './sound';
import { ShopSettings } from './shop-settings';
import { uiActions, uiFeature } from './ui';
import { newId } from '../base/new-id';

/** The open build as the sheets see it: derived figures, and the ways to change it. */
@Injectable({ providedIn: 'root' })
export class Bench {
  private readonly store = inject(Store);
  private readonly messages = inject(MessageService);
  private readonly mayWrite = inject(MayWrite);
  private readonly readBy = inject(ReadBy);
  private readonly sound = inject(Sound);
  private readonly shop = inject(ShopSetUps);
  private readonly settings = inject(ShopSettings).settings;
  /** In development and in tests a mistake is thrown; for a builder it becomes a finding and the rest stands. */
  private readonly deriver = new BuildDeriver(!isDevMode());

  readonly editor = this.store.selectSignal(editorFeature.selectEditorState);
  readonly ledger = this.store.selectSignal(editorFeature.selectLedger);
  readonly system = this.store.selectSignal(uiFeature.selectSystem);
  readonly who = this.store.selectSignal(uiFeature.selectWho);
  private readonly ownSign = this.store.selectSignal(uiFeature.selectDecimal);
  /** What separates decimals: as the shop says, else this device; undefined: by plausibility. */
  readonly decimal = computed(() => this.settings().decimal ?? this.ownSign() ?? undefined);
  private readonly chosenAxle = this.store.selectSignal(uiFeature.selectAxle);
  private readonly id = this.store.selectSignal(editorFeature.selectId);
  private readonly present = this.store.selectSignal(editorFeature.selectPresent);
  private readonly preview = this.store.selectSignal(editorFeature.selectPreview);
  private readonly keptPoints = this.store.selectSignal(lookingFeature.selectPoints);
  private readonly draggedPoint = this.store.selectSignal(lookingFeature.selectDragged);

  /** What is shown: what is being dragged, else what is kept. */
  readonly build = computed(() => this.preview() ?? this.present());
  readonly previewing = computed(() => this.preview() !== null || this.draggedPoint() !== null);
  readonly axleName = computed(() => {
    const build = this.build();
    const driven = build ? drivenAxles(build) : [];
    return driven.includes(this.chosenAxle()) ? this.chosenAxle() : (driven[0] ?? 'rear');
  });
  readonly axle = computed<Axle | null>(() => this.build()?.axles[this.axleName()] ?? null);
  readonly plate = computed(() => this.axle()?.unit.plate ?? null);
  /** Null where the unit has no plates at work, even if some are kept for it. */
  readonly plates = computed(() => platesOf(this.axle()?.unit));
  /** What other builds of the shop taught. */
  private readonly past = computed(() => this.shop.past().filter(({ build }) => build !== this.id()));
  readonly derived = computed(() => {
    const build = this.build();
    const point = this.draggedPoint() ?? this.keptPoints()[this.id() ?? ''];
    const looking = { follow: this.axleName(), point, today: localDay(new Date()), past: this.past() };
    return build ? this.deriver.derive(build, this.ledger(), looking) : null;
  });
  /** Where this device looks, as far as the build has such a gear and range. */
  readonly point = computed<OperatingPoint>(() => this.derived()?.point ?? { gear: 0, range: 0, rpm: 1000 });
  readonly readings = computed(() => readingsInForce(this.ledger()));
  readonly canUndo = computed(() => this.editor().past.length > 0);
  readonly canRedo = computed(() => this.editor().future.length > 0);

  /**
   * Changes the specification. The recipe works on a copy; a result that the schema refuses is not taken, and says
   * which field is wrong. What was assumed and is changed is said from then on.
   * @returns whether the change was taken
   */
  change(recipe: (draft: Build) => void): boolean {
    const present = this.present();
    if (!present || this.onlyLooks()) return false;
    const draft = structuredClone(present) as Build;
    recipe(draft);
    try {
      const build = share(present, parseOrRefuse(buildSchema, draft, 'build'));
      this.store.dispatch(editorActions.changed({ build: settleAssumed(present, build) }));
      return true;
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.store.dispatch(editorActions.previewDropped());
      this.refuse(error);
      return false;
    }
  }

  /** Says why something is not taken. */
  refuse({ message }: InputError): void {
    this.messages.add({ severity: 'error', summary: 'Not taken', detail: message, life: 8000 });
  }

  /** Shows a change everywhere without keeping it, for as long as something is dragged. */
  drag(recipe: (draft: Build) => Build): void {
    const present = this.present();
    if (present) this.store.dispatch(editorActions.previewed({ build: recipe(present) }));
  }

  drop(): void {
    this.store.dispatch(editorActions.previewDropped());
  }

  /** Looks at another operating point. It is this device's own: nothing is saved, nothing is undone. */
  lookAt(change: Partial<OperatingPoint>): void {
    const id = this.id();
    if (id !== null) this.store.dispatch(lookingActions.pointKept({ id, point: { ...this.point(), ...change } }));
  }

  /** The same while it is dragged. */
  dragPoint(change: Partial<OperatingPoint>): void {
    this.store.dispatch(lookingActions.pointDragged({ point: { ...this.point(), ...change } }));
  }

  /** Whether nobody has said the value at a path of the build yet. */
  assumed(path: string): boolean {
    return this.build()?.assumed.some((one) => one === path || one.startsWith(`${path}.`)) ?? false;
  }

  /** Says that what is assumed at these paths is so. */
  confirm(paths: readonly string[]): void {
    this.change((draft) => (draft.assumed = draft.assumed.filter((path) => !paths.includes(path))));
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
    this.travel(editorActions.undone());
  }

  redo(): void {
    this.travel(editorActions.redone());
  }

  private travel(action: ReturnType<typeof editorActions.undone | typeof editorActions.redone>): void {
    this.store.dispatch(action);
    const { notUndone } = this.editor();
    if (notUndone !== null)
      this.messages.add({ severity: 'warn', summary: 'That step is left out', detail: notUndone, life: 8000 });
  }

  private written() {
    return { id: newId(), at: new Date().toISOString(), who: this.who() };
  }

  /** Whether who is signed in only looks; they are told. */
  private onlyLooks(): boolean {
    const looks = this.mayWrite.looks();
    if (looks) this.messages.add({ severity: 'warn', summary: 'Not written', detail: LOOKS_ON, life: 6000 });
    return looks;
  }

  private write(entry: LedgerEntry): void {
    if (this.onlyLooks()) return;
    this.store.dispatch(editorActions.recorded({ entry }));
  }

  /** Writes a reading of a number to the ledger with the time of now; of several, the subject says which counts. */
  record(
    subject: SubjectOf,
    value: Entry | readonly Entry[] | ReadingValue,
    instrument: string,
    {
      note,
      state = {},
      gauge = this.readBy.gauge,
    }: {
      readonly note?: string;
      readonly state?: Readonly<Record<string, string>>;
      readonly gauge?: GaugeSent | null;
    } = {},
  ): void {
    const kind = subjects.find(({ what }) => what === subject.what)?.value;
    const counts = kind?.of === 'number' ? kind.counts : 'one';
    const whole = 'of' in value ? value : { of: 'number' as const, counts, entries: [value].flat() };
    const more = { ...(note === undefined ? {} : { note }), ...(gauge ? { gauge } : {}) };
    this.write({ kind: 'reading', ...this.written(), subject, value: whole, state, instrument, ...more });
    this.sound.taken();
  }

  /** Writes what was decided: what about, how, and why. */
  decide(about: string, decided: string, why: string): void {
    this.write({ kind: 'decision', ...this.written(), about, decided, why });
  }

  /** Puts a name under figures. */
  sign(gate: string, name: string, figures: Readonly<Record<string, number>>, note: string): void {
    const more = note === '' ? {} : { note };
    this.write({ kind: 'signature', ...this.written(), gate, name, figures: { ...figures }, ...more });
  }

  /** Appends entries as they stand, in their order: out of a file. */
  bring(entries: readonly LedgerEntry[]): void {
    for (const entry of entries) this.write(entry);
  }

  voidEntry(id: string, reason: string): void {
    this.write({ kind: 'void', ...this.written(), voids: id, reason });
  }

  readingOf(subject: SubjectOf) {
    return this.readings().get(keyOfSubject(subject)) ?? null;
  }

  figure(id: FigureId) {
    return this.derived()?.figures.get(id) ?? null;
  }

  openWorking(figure: string): void {
    this.store.dispatch(uiActions.workingOpened({ figure }));
  }
}
