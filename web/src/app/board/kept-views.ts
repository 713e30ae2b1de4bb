import { Injectable, computed, signal } from '@angular/core';
import { JOBS, type Job } from '@hot-spline/core';
import { BOARD_STATES, RESTS_FOR, type BoardState, type RestsFor } from '@hot-spline/model';
import { deviceStore } from '../base/device-store';
import type { BoardRows } from './board-rows';
import { BOARD_PROMISES, BOARD_SORTS, type BoardPromise, type BoardSort } from './board-words';

const KEY = 'hot-spline.board-views';
/** So many names fit a list that is read at a glance: ours. */
export const MOST_VIEWS = 20;

/** What the board is asked, under a name. */
export interface KeptView {
  readonly name: string;
  readonly search: string;
  readonly state: BoardState | null;
  readonly sort: BoardSort;
  readonly promised: BoardPromise;
  readonly worker: string;
  readonly rest: RestsFor | '';
  readonly job: Job | '';
}

const oneOf = <T extends string>(all: readonly T[], said: unknown): T | undefined => all.find((one) => one === said);
const text = (said: unknown): string => (typeof said === 'string' ? said : '');

/** As it was kept: what this program does not know is as if it had not been said. */
function viewOf(said: unknown): KeptView[] {
  if (typeof said !== 'object' || said === null) return [];
  const of = said as Record<string, unknown>;
  if (text(of['name']) === '') return [];
  return [
    {
      name: text(of['name']),
      search: text(of['search']),
      state: oneOf(BOARD_STATES, of['state']) ?? null,
      sort:
        oneOf(
          BOARD_SORTS.map(({ value }) => value),
          of['sort'],
        ) ?? 'name',
      promised:
        oneOf(
          BOARD_PROMISES.map(({ value }) => value),
          of['promised'],
        ) ?? '',
      worker: text(of['worker']),
      rest: oneOf(RESTS_FOR, of['rest']) ?? '',
      job: oneOf(JOBS, of['job']) ?? '',
    },
  ];
}

function read(): readonly KeptView[] {
  try {
    const kept: unknown = JSON.parse(deviceStore.get(KEY) ?? '[]');
    return Array.isArray(kept) ? kept.flatMap(viewOf) : [];
  } catch (error) {
    console.warn('the views of this device can’t be read', error);
    return [];
  }
}

/** What somebody looks for on the board again and again: this device’s own, for what one looks at is no word of the shop. */
@Injectable({ providedIn: 'root' })
export class KeptViews {
  private readonly kept = signal(read());
  readonly views = this.kept.asReadonly();
  readonly full = computed(() => this.kept().length >= MOST_VIEWS);

  /** Keeps what the board is asked now; a name that is there already means this from now on. */
  keep(name: string, rows: BoardRows): void {
    const view: KeptView = {
      ...{ name, search: rows.search(), state: rows.state(), sort: rows.sort(), promised: rows.promised() },
      ...{ worker: rows.worker(), rest: rows.rest(), job: rows.job() },
    };
    this.set([...this.kept().filter((one) => one.name !== name), view].sort((a, b) => a.name.localeCompare(b.name)));
  }

  drop(name: string): void {
    this.set(this.kept().filter((one) => one.name !== name));
  }

  /** Asks the board what was kept. */
  show(name: string, rows: BoardRows): void {
    const view = this.kept().find((one) => one.name === name);
    if (!view) return;
    rows.search.set(view.search);
    rows.state.set(view.state);
    rows.sort.set(view.sort);
    rows.promised.set(view.promised);
    rows.worker.set(view.worker);
    rows.rest.set(view.rest);
    rows.job.set(view.job);
  }

  /** The view that the board shows now; empty where it is none that was kept. */
  shown(rows: BoardRows): string {
    const same = (view: KeptView): boolean =>
      view.search === rows.search() &&
      view.state === rows.state() &&
      view.sort === rows.sort() &&
      view.promised === rows.promised() &&
      view.worker === rows.worker() &&
      view.rest === rows.rest() &&
      view.job === rows.job();
    return this.kept().find(same)?.name ?? '';
  }

  private set(views: readonly KeptView[]): void {
    this.kept.set(views);
    deviceStore.set(KEY, JSON.stringify(views));
  }
}
