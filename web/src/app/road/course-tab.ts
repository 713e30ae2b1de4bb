import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import {
  cutText,
  GRADE,
  GRAVITY,
  InputError,
  LIMITS,
  scaleUnit,
  entryOf,
  formatIn,
  parseEntry,
  fromBase,
  type Corner,
  type Entry,
  type Quantity,
  type Slope,
} from '@hot-spline/core';
import { Router, RouterLink } from '@angular/router';
import { parseOrRefuse, courseSchema, type CourseSpec } from '@hot-spline/model';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { textReader } from '../shared/readers';
import { Bench } from '../state/bench';
import { Heavy } from '../shared/heavy';
import type { ReadTrace, TraceChoice } from '../shared/heavy-jobs';
import { RemoveButton } from '../shared/remove-button';

type Done = ReadTrace;

/** The course: read from a speed trace, or corner by corner. */
@Component({
  selector: 'hs-course-tab',
  imports: [Choice, EntryField, Field, RemoveButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './course-tab.html',
  styleUrl: './course-tab.scss',
})
export class CourseTab {
  protected readonly bench = inject(Bench);
  protected readonly heavy = inject(Heavy);
  private readonly router = inject(Router);
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');

  protected readonly readName = textReader('Course', 80, 1);
  protected readonly distanceRange = { above: 0, max: 1e6, unit: 'm' };
  protected readonly speedRange = { min: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
  protected readonly course = computed(() => this.bench.build()?.course ?? null);
  protected readonly speedUnits = [
    { value: 'km/h' as const, label: 'km/h' },
    { value: 'mph' as const, label: 'mph' },
    { value: 'm/s' as const, label: 'm/s' },
    { value: 'kn' as const, label: 'knots' },
  ];
  protected readonly alongs = [
    { value: 'time' as const, label: 'time' },
    { value: 'distance' as const, label: 'distance' },
  ];
  protected readonly timeUnits = [
    { value: 's' as const, label: 's' },
    { value: 'ms' as const, label: 'ms' },
    { value: 'min' as const, label: 'min' },
  ];
  protected readonly distanceUnits = [
    { value: 'metre' as const, label: 'm' },
    { value: 'km' as const, label: 'km' },
    { value: 'ft' as const, label: 'ft' },
    { value: 'mile' as const, label: 'mile' },
  ];

  private readonly file = signal<File | null>(null);
  protected readonly fileName = computed(() => this.file()?.name ?? '');
  protected readonly read = signal<Done | null>(null);
  protected readonly problem = signal<string | null>(null);
  private choice: TraceChoice = {};

  protected readonly corners = computed(() => {
    const system = this.bench.system();
    const text = (value: number, quantity: Quantity, decimals: number): string =>
      formatIn(value, quantity, system, decimals).text;
    return (this.course()?.corners ?? []).map((corner) => ({
      at: text(corner.atM, 'distance', 0),
      length: text(corner.lengthM, 'distance', 0),
      speed: text(corner.speedMps, 'speed', 1),
      braking: (corner.brakingMps2 / GRAVITY).toFixed(2),
    }));
  });
  protected readonly units = computed(() => {
    const inch = this.bench.system() === 'inch';
    return { distance: inch ? 'ft' : 'm', speed: inch ? 'mph' : 'km/h' };
  });

  /** `120 15 52 1.1`: where, how long, how fast, braking in g; units by the system in force or as typed. */
  protected readonly readCorner = computed(() => {
    const system = this.bench.system();
    return (text: string): Understood<Corner> => {
      const parts = text
        .trim()
        .split(/\s*[,;]\s*|\s{2,}|\s(?=[\d.])/)
        .filter((part) => part !== '');
      if (parts.length < 3 || parts.length > 4)
        throw new InputError('Corner', 'Corner needs where, length, speed and braking in g.', 'e.g. 120, 15, 52, 1.0');
      const number = (part: string | undefined, field: string, quantity: Quantity, max: number): number =>
        parseEntry(part ?? '', { field, quantity, system, range: { min: 0, max } }).base;
      const corner = {
        atM: number(parts[0], 'Where', 'distance', 1e6),
        lengthM: number(parts[1], 'Length', 'distance', 1e5),
        speedMps: number(parts[2], 'Speed', 'speed', 550),
        brakingMps2: number(parts[3] ?? '1', 'Braking', 'coefficient', 6) * GRAVITY,
      };
      if (corner.speedMps <= 0 || corner.brakingMps2 <= 0)
        throw new InputError('Corner', 'Corner needs a speed and a braking above 0.', 'e.g. 120, 15, 52, 1.0');
      return { value: corner, said: `${corner.atM.toFixed(0)} m, ${(3.6 * corner.speedMps).toFixed(0)} km/h` };
    };
  });

  /** A value in base units as an entry in the builder's units. */
  protected entry(base: number, quantity: 'distance' | 'speed'): Entry {
    const unit = scaleUnit(quantity, this.bench.system()).unit;
    return entryOf(Number(fromBase(base, unit).toFixed(1)), unit);
  }

  protected async open(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.choice = {};
    this.file.set(file);
    await this.readFile();
  }

  protected async choose(choice: TraceChoice): Promise<void> {
    this.choice = { ...this.choice, ...choice };
    await this.readFile();
  }

  /** Along time or along distance: whichever column is that by its name. */
  protected async chooseAlong(along: 'time' | 'distance'): Promise<void> {
    const { alongAt: _, timeUnit: __, distanceUnit: ___, ...others } = this.choice;
    this.choice = { ...others, along };
    await this.readFile();
  }

  protected columnsOf({ names }: Done): { value: string; label: string }[] {
    return names.map((label, i) => ({ value: String(i), label }));
  }

  private async readFile(): Promise<void> {
    const file = this.file();
    if (!file) return;
    this.problem.set(null);
    this.read.set(null);
    try {
      const { result } = await this.heavy.run('road.trace', { file, choice: this.choice });
      if (result) this.read.set(result);
    } catch (error) {
      if (error instanceof InputError) this.problem.set(`${error.message} Allowed: ${error.allowed}.`);
      else this.problem.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected distanceUnit(trace: Done): 'metre' | 'km' | 'ft' | 'mile' {
    return this.distanceUnits.find(({ value }) => value === trace.columns.distanceUnit)?.value ?? 'metre';
  }

  protected takeTrace(): void {
    const trace = this.read();
    if (!trace) return;
    const name = cutText(this.fileName().replace(/\.\w+$/, ''), 80) || 'Course';
    const { lengthM, startMps, fastestMps, corners, slopes = [] } = trace.course;
    const { timeS, samples } = trace.log;
    this.set({
      name,
      lengthM,
      startMps,
      fastestMps,
      corners: [...corners],
      slopes: [...slopes],
      log: { timeS, samples: [...samples] },
    });
    this.read.set(null);
    this.file.set(null);
  }

  /** A course that the schema refuses is not taken, and says why. */
  private set(course: CourseSpec): void {
    this.bench.change((draft) => (draft.course = parseOrRefuse(courseSchema, course, 'course')));
  }

  protected start(): void {
    this.set({ name: 'Course', lengthM: 1000, startMps: 0, fastestMps: null, corners: [], slopes: [], log: null });
    // Where the corners are entered: the search, which asks for a course too, shows none of them.
    void this.router.navigate([], { queryParams: { tab: 'course' }, queryParamsHandling: 'merge' });
  }

  protected rename(name: string): void {
    this.edit((course) => (course.name = name));
  }

  protected setLength({ base }: TakenEntry): void {
    this.edit((course) => (course.lengthM = base));
  }

  protected setStart({ base }: TakenEntry): void {
    this.edit((course) => (course.startMps = base));
  }

  protected addCorner(corner: Corner): void {
    this.edit((course) => {
      course.corners.push({ ...corner });
      course.corners.sort((a, b) => a.atM - b.atM);
      const last = course.corners.at(-1);
      if (last) course.lengthM = Math.max(course.lengthM, last.atM + last.lengthM + 1);
    });
  }

  /** One undo brings it back. */
  protected clear(): void {
    this.bench.change((draft) => (draft.course = null));
  }

  /** `360, 7 %`: from where on, and how steep; minus is downhill. */
  protected readonly readSlope = computed(() => {
    const system = this.bench.system();
    return (text: string): Understood<Slope> => {
      const [where = '', grade = '', ...more] = text.split(/[,;]|\s+(?=[-−+]?\d)/).filter((part) => part.trim() !== '');
      if (grade === '' || more.length > 0)
        throw new InputError('Slope', 'Slope needs from where, and how steep in percent.', 'e.g. 360, 7 %');
      const at = parseEntry(where, {
        field: 'From where',
        quantity: 'distance',
        system,
        range: { min: 0, max: this.course()?.lengthM ?? 1e6, unit: 'm' },
      });
      const { base } = parseEntry(grade, { field: 'Slope', quantity: 'percent', system, range: GRADE });
      return {
        value: { atM: at.base, gradePercent: base },
        said: `${base > 0 ? 'up' : base < 0 ? 'down' : 'level'} ${Math.abs(base)} % from ${at.base.toFixed(0)} m`,
      };
    };
  });

  protected addSlope(slope: Slope): void {
    this.edit((course) => {
      const others = course.slopes.filter(({ atM }) => atM !== slope.atM);
      course.slopes = [...others, { ...slope }].sort((a, b) => a.atM - b.atM);
    });
  }

  protected removeSlope(index: number): void {
    this.edit((course) => course.slopes.splice(index, 1));
  }

  protected removeCorner(index: number): void {
    this.edit((course) => course.corners.splice(index, 1));
  }

  private edit(recipe: (course: CourseSpec) => void): void {
    this.bench.change((draft) => {
      if (draft.course) recipe(draft.course);
    });
  }

  protected length(metres: number): string {
    return formatIn(metres, 'distance', this.bench.system(), 0).text;
  }

  protected speed(mps: number): string {
    return formatIn(mps, 'speed', this.bench.system(), 1).text;
  }
}
