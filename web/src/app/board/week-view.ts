import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { InputError } from '@hot-spline/core';
import type { BoardRow, BoardWeek } from '@hot-spline/model';
import { auditTime, filter } from 'rxjs';
import { localDay, sayDay } from '../base/day';
import { Field, type Understood } from '../shared/field';
import { readDay } from '../shared/day-reader';
import { Radios } from '../shared/radios';
import { ApiError, api } from '../state/api';
import { Changes } from '../state/changes';
import { Outbox } from '../state/outbox';
import { Session } from '../state/session';
import { ShopSettings } from '../state/shop-settings';
import { stateWords } from './row-words';

type Day = BoardWeek['days'][number];

const WEEKS = [
  { value: '2', label: '2 weeks' },
  { value: '4', label: '4 weeks' },
  { value: '8', label: '8 weeks' },
] as const;
/** Of many changes one after the other, the week is read again so often, ms. */
const FOLLOW_MS = 700;
const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const SAY_WEEKDAY = new Intl.DateTimeFormat([], { weekday: 'short', day: 'numeric', month: 'short' });

const hoursOf = (hours: number): string => `${Math.round(10 * hours) / 10} h`;

/** Hours of a day, of all who work together. */
function readHours(text: string): Understood<number> {
  const value = Number(text.trim().replace(',', '.'));
  if (text.trim() === '' || !(value >= 0 && value <= 1000))
    throw new InputError('Hours', `“${text}” are no hours of a day.`, '0 to 1000, of all who work together');
  return { value, said: hoursOf(value) };
}

/** What is promised day by day against the hours that the shop has; a card is drawn to the day that it is promised for from now on. */
@Component({
  selector: 'hs-board-week',
  imports: [Field, NgTemplateOutlet, Radios, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './week-view.html',
  styleUrl: './week-view.scss',
})
export class WeekView {
  /** Says what was not done. */
  readonly work = input.required<(run: () => Promise<void>) => Promise<void>>();
  private readonly outbox = inject(Outbox);
  private readonly settings = inject(ShopSettings);
  private readonly session = inject(Session);
  protected readonly week = signal<BoardWeek | null>(null);
  protected readonly problem = signal('');
  protected readonly spans = WEEKS;
  protected readonly weeks = signal<(typeof WEEKS)[number]['value']>('2');
  protected readonly dragged = signal<BoardRow | null>(null);
  /** The day that a card is held over. */
  protected readonly over = signal<string | null>(null);
  /** What was promised last here, so that it can be put back. */
  protected readonly moved = signal<{ readonly row: BoardRow; readonly from: string; readonly to: string } | null>(
    null,
  );
  protected readonly looks = this.session.looks;
  protected readonly keeps = this.session.keeps;
  protected readonly readHours = readHours;
  protected readonly readDay = readDay;
  protected readonly words = stateWords;
  protected readonly hoursOf = hoursOf;
  protected readonly day = sayDay;
  protected readonly setting = signal(false);
  protected readonly hours = computed(() => this.settings.settings().weekHours);
  /** Hours as they are typed, by day; null where none is said yet. */
  protected readonly said = linkedSignal<readonly (number | null)[]>(() => this.hours() ?? DAY_NAMES.map(() => null));
  protected readonly unsaid = computed(() => DAY_NAMES.filter((_, i) => this.said()[i] === null));
  protected readonly dayNames = DAY_NAMES;
  /** The first evening until which more is promised than there are hours, and the worst. */
  protected readonly lack = computed(() => {
    const late = (this.week()?.days ?? []).filter(({ overH }) => (overH ?? 0) > 0);
    const worst = late.reduce<Day | null>((most, one) => ((one.overH ?? 0) > (most?.overH ?? 0) ? one : most), null);
    return late[0] && worst ? { first: late[0], worst } : null;
  });

  constructor() {
    void this.read();
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'build' || of === 'ledger' || of === 'shop' || of === 'all'),
        auditTime(FOLLOW_MS),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.read());
  }

  private async read(): Promise<void> {
    try {
      this.week.set(await api.boardWeek({ today: localDay(new Date()), weeks: Number(this.weeks()) }));
      this.problem.set('');
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }

  protected look(weeks: (typeof WEEKS)[number]['value']): void {
    this.weeks.set(weeks);
    void this.read();
  }

  protected weekday(day: string): string {
    return SAY_WEEKDAY.format(new Date(`${day}T12:00`));
  }

  /** A day on which the shop is shut and nothing is promised is a narrow one. */
  protected shut({ hours, builds }: Day): boolean {
    return hours === 0 && builds === 0;
  }

  protected take(event: DragEvent, row: BoardRow): void {
    this.dragged.set(row);
    event.dataTransfer?.setData('text/plain', row.name);
    if (event.dataTransfer) event.dataTransfer.effectAllowed = 'move';
  }

  protected hold(event: DragEvent, day: string): void {
    if (!this.dragged()) return;
    event.preventDefault();
    this.over.set(day);
  }

  protected letGo(): void {
    this.dragged.set(null);
    this.over.set(null);
  }

  protected async drop(event: DragEvent, day: string): Promise<void> {
    event.preventDefault();
    const row = this.dragged();
    this.letGo();
    if (row) await this.promise(row, day);
  }

  /** Promises it for another day. A build of which something is still to be decided here is opened first. */
  protected async promise(row: BoardRow, to: string | null): Promise<void> {
    if (row.promised === to || row.promised === null) return;
    const from = row.promised;
    await this.work()(async () => {
      const [stored, waiting] = await Promise.all([api.build(row.id), this.outbox.pending(row.id)]);
      if (waiting.refusedOn !== undefined)
        throw new Error(`Something of “${row.name}” was not taken: open it and decide that first.`);
      const build = waiting.build ?? stored.build;
      await this.outbox.putBuild(row.id, stored.version, { ...build, promised: to });
      await this.outbox.sent();
      this.moved.set(to === null ? null : { row: { ...row, promised: to }, from, to });
      await this.read();
    });
  }

  /** Kept once all seven are said: a day that nobody has said is no day off. */
  protected setHours(at: number, hours: number): Promise<void> {
    const week = this.said().with(at, hours);
    this.said.set(week);
    const whole = week.filter((one) => one !== null);
    if (whole.length < DAY_NAMES.length) return Promise.resolve();
    return this.work()(async () => {
      await this.settings.choose({ weekHours: whole as [number, number, number, number, number, number, number] });
      await this.outbox.sent();
      await this.read();
    });
  }
}
