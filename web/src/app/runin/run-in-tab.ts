import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { entryBase, say, type Entry } from '@hot-spline/core';
import { RUN_IN_SCHOOLS, runInSubjects, setupSubjects, type Trip, type Work } from '@hot-spline/model';
import { WorkEdit } from '../plan/work-edit';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { Radios } from '../shared/radios';
import { countReader, textReader } from '../shared/readers';
import { VoidButton } from '../shared/void-button';
import { localDay, sayMoment } from '../base/day';
import { readDay } from '../shared/day-reader';

/** How a new axle is run in: the main schools, common practice. */
const SCHOOLS: Readonly<Record<Work['runIn']['school'], { readonly label: string; readonly does: string }>> = {
  'heat-cycles': { label: 'Heat cycles', does: 'Drive it warm, let it cool fully, and again, as often as set below.' },
  'short-trips': { label: 'Short trips', does: 'Short trips at first, each cooled down fully before the next.' },
  distance: { label: 'Distance', does: 'The distance below without full throttle or towing, then change the oil.' },
};
const SOUNDS = runInSubjects.SOUNDS.map((value) => ({ value, label: value }));
const KINDS = runInSubjects.TRIP_KINDS.map((value) => ({ value, label: value }));

/** Trips, heat cycles, miles and races, logged with a thumb; when it is looked at again; signed off. */
@Component({
  selector: 'hs-run-in',
  imports: [Choice, EntryField, Field, Radios, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run-in-tab.html',
  styleUrl: './run-in-tab.scss',
})
export class RunInTab {
  protected readonly edit = inject(WorkEdit);
  private readonly bench = this.edit.bench;
  protected readonly axle = this.edit.axle;
  protected readonly schools = RUN_IN_SCHOOLS.map((value) => ({ value, label: SCHOOLS[value].label }));
  protected readonly kinds = KINDS;
  protected readonly sounds = SOUNDS;
  protected readonly readCount = countReader('Count', 0, 200);
  protected readonly readDay = readDay;
  protected readonly readNoise = textReader('Heard, seen', 300);
  protected readonly readName = textReader('Name', 60, 1);
  protected readonly distanceRange = { min: 0, max: 1e7, unit: 'm' };
  protected readonly temperatureRange = { min: -50, max: 400, unit: '°C' };
  protected readonly alarmRange = { min: 0, max: 400, unit: '°C' };
  protected readonly moment = sayMoment;
  protected readonly state = computed(() => this.bench.derived()?.runin[this.axle()] ?? null);
  protected readonly runIn = computed(() => this.edit.work()?.runIn ?? null);
  protected readonly does = computed(() => SCHOOLS[this.runIn()?.school ?? 'distance'].does);

  // What is logged next: written as one when it is taken.
  protected readonly kind = signal<Trip['kind']>('trip');
  protected readonly distance = signal<Entry | null>(null);
  protected readonly temperature = signal<Entry | null>(null);
  protected readonly sound = signal<Trip['sound']>(null);
  protected readonly noise = signal('');

  protected readonly signature = computed(() => {
    const gate = `${this.axle()} run-in`;
    return this.bench.ledger().findLast((entry) => entry.kind === 'signature' && entry.gate === gate) ?? null;
  });
  protected readonly hot = computed(() => {
    const [runIn, temperature] = [this.runIn(), this.temperature()];
    return runIn !== null && temperature !== null && entryBase(temperature) >= entryBase(runIn.alarm);
  });

  /** What its school still asks for before it can be signed off. */
  protected readonly left = computed(() => {
    const [state, runIn] = [this.state(), this.runIn()];
    if (!state || !runIn) return '';
    return runIn.school === 'heat-cycles'
      ? `It is signed off after ${Math.max(1, runIn.cycles)} heat cycles: ${state.cycles} so far.`
      : `It is signed off after ${this.text(entryBase(runIn.distance), 'distance')}: ${this.text(state.metres, 'distance')} so far.`;
  });

  /** Where the total was read at the end of the set-up, it can be read again: what is left of it. */
  protected readonly turning = computed(() => {
    const of = (stage: 'final' | 'run-in') =>
      this.bench.readingOf(setupSubjects.totalTorque.of({ axle: this.axle(), stage }));
    const [before, after] = [of('final'), of('run-in')];
    if (!before) return null;
    const value = after?.value;
    const finding = this.bench.derived()?.findings.find(({ id }) => id === `preload.${this.axle()}.stayed`);
    const { range, plausible } = setupSubjects.totalTorque.value;
    return {
      range,
      plausible,
      entry: value?.of === 'number' ? (value.entries[0] ?? null) : null,
      hint:
        finding?.say(this.bench.system()).detail ?? 'As it was read before: shafts and prop shaft off, oiled, steady.',
    };
  });

  protected readAgain(entry: Entry): void {
    const state = this.bench.axle()?.setup?.state;
    if (!state) return;
    this.bench.record(
      setupSubjects.totalTorque.of({ axle: this.axle(), stage: 'run-in' }),
      entry,
      'Dial or beam torque wrench',
      { state },
    );
  }

  protected set(change: Partial<Work['runIn']>): void {
    this.edit.change((work) => Object.assign(work.runIn, change));
  }

  protected log(): void {
    const number = (this.state()?.trips.at(-1)?.number ?? 0) + 1;
    const keys = { axle: this.axle(), trip: String(number) };
    this.bench.record(runInSubjects.tripKind.of(keys), { of: 'choice', choice: this.kind() }, 'By hand');
    const [distance, temperature, noise] = [this.distance(), this.temperature(), this.noise()];
    if (distance) this.bench.record(runInSubjects.tripDistance.of(keys), distance, 'Odometer');
    if (temperature) this.bench.record(runInSubjects.tripTemperature.of(keys), temperature, 'Thermometer');
    const sound = this.kind() === 'recheck' ? null : this.sound();
    if (sound !== null) this.bench.record(runInSubjects.tripSound.of(keys), { of: 'choice', choice: sound }, 'By ear');
    if (noise) this.bench.record(runInSubjects.tripNoise.of(keys), { of: 'text', text: noise }, 'By ear');
    // It was looked at: its day is over, the next one is set anew.
    const on = this.runIn()?.on ?? null;
    if (this.kind() === 'recheck' && on !== null && on <= localDay(new Date())) this.set({ on: null });
    this.distance.set(null);
    this.temperature.set(null);
    this.sound.set(null);
    this.noise.set('');
  }

  protected sign(name: string): void {
    const state = this.state();
    const figures = { metres: state?.metres ?? 0, cycles: state?.cycles ?? 0, races: state?.races ?? 0 };
    this.bench.sign(`${this.axle()} run-in`, name, figures, '');
  }

  protected text(base: number | null, quantity: 'distance' | 'temperature'): string {
    if (base === null) return '–';
    return quantity === 'distance'
      ? say(base, 'distance', this.bench.system(), 0, 'trip')
      : say(base, 'temperature', this.bench.system(), 0);
  }
}
