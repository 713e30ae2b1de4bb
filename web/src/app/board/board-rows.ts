import { localDay } from '../base/day';
import { serverPath } from '../base/server-path';
import { Injectable, computed, signal } from '@angular/core';
import type { Job } from '@hot-spline/core';
import { BOARD_STATES, type BoardRow, type BoardState, type RestsFor } from '@hot-spline/model';
import { ApiError, api } from '../state/api';
import type { BoardPromise, BoardSort } from './board-words';

/** Rows that are fetched at once, and cards of one state. */
const PIECE = 100;
const CARDS = 12;

/** The board as far as it has been looked at: pieces are fetched where somebody scrolls to. */
@Injectable()
export class BoardRows {
  readonly search = signal('');
  readonly state = signal<BoardState | null>(null);
  readonly sort = signal<BoardSort>('name');
  /** Whose work, what it waits for, what kind: empty: all. */
  readonly worker = signal('');
  readonly rest = signal<RestsFor | ''>('');
  readonly job = signal<Job | ''>('');
  /** By row; null where it has not been fetched yet. */
  readonly rows = signal<readonly (BoardRow | null)[]>([]);
  /** By the day that it is promised for; empty: any. */
  readonly promised = signal<BoardPromise>('');
  /** Whose builds these are, where a name was looked for; null: every mention of what was. */
  readonly whose = signal<string | null>(null);
  readonly archived = signal<readonly BoardRow[]>([]);
  readonly cards = signal<readonly { readonly state: BoardState; readonly rows: readonly BoardRow[] }[]>([]);
  readonly states = signal<Readonly<Partial<Record<BoardState, number>>>>({});
  readonly status = signal<'loading' | 'ready' | 'failed'>('loading');
  readonly problem = signal('');
  /** How many there are, whatever is looked for. */
  readonly all = computed(() => BOARD_STATES.reduce((sum, state) => sum + (this.states()[state] ?? 0), 0));
  readonly shownStates = computed(() => BOARD_STATES.filter((state) => (this.states()[state] ?? 0) > 0));
  private asked = 0;
  private readonly pieces = new Set<number>();

  /** Address of all that is looked for, in its order, as CSV. */
  readonly csvUrl = computed(() => serverPath(`/board?${new URLSearchParams({ ...this.question(), as: 'csv' })}`));

  /** Whether anything but words is looked for. */
  readonly filtered = computed(() =>
    [this.worker(), this.rest(), this.job(), this.promised()].some((one) => one !== ''),
  );

  /** Looks for everything again. */
  clear(): void {
    this.state.set(null);
    for (const one of [this.search, this.worker, this.rest, this.job, this.promised]) one.set('');
  }

  /** What is looked for in every state; the day is this device’s. */
  private inAll() {
    const said = { worker: this.worker(), rest: this.rest(), job: this.job(), promised: this.promised() };
    return {
      search: this.search(),
      today: localDay(new Date()),
      ...Object.fromEntries(Object.entries(said).filter(([, value]) => value !== '')),
    };
  }

  private question() {
    const state = this.state();
    return { ...this.inAll(), sort: this.sort(), ...(state === null ? {} : { state }) };
  }

  /** Asks anew, from the top; an answer to an earlier question is dropped. */
  async load(): Promise<void> {
    const ask = ++this.asked;
    this.pieces.clear();
    try {
      const [first, away] = await Promise.all([
        api.board({ ...this.question(), limit: PIECE }),
        api.board({ archived: '1', limit: PIECE }),
      ]);
      if (ask !== this.asked) return;
      this.states.set(first.states);
      this.whose.set(first.whose);
      const rest = Array.from({ length: Math.max(0, first.total - first.rows.length) }, () => null);
      this.pieces.add(0);
      this.rows.set([...first.rows, ...rest]);
      this.archived.set(away.rows);
      this.status.set('ready');
      this.problem.set('');
    } catch (error) {
      this.fail(error);
    }
  }

  /** Reads again what is there, and keeps it standing until the answers are. */
  async refresh(): Promise<void> {
    const ask = this.asked;
    const pieces = [...this.pieces].sort((a, b) => a - b);
    try {
      const [away, ...read] = await Promise.all([
        api.board({ archived: '1', limit: PIECE }),
        ...pieces.map((piece) => api.board({ ...this.question(), offset: piece * PIECE, limit: PIECE })),
      ]);
      const [first] = read;
      if (ask !== this.asked || !away || !first) return;
      const all: (BoardRow | null)[] = Array.from({ length: first.total }, () => null);
      pieces.forEach((piece, i) => read[i]?.rows.forEach((row, j) => (all[piece * PIECE + j] = row)));
      this.states.set(first.states);
      this.whose.set(first.whose);
      this.rows.set(all);
      this.archived.set(away.rows);
      this.status.set('ready');
      this.problem.set('');
    } catch (error) {
      this.fail(error);
    }
  }

  /** Fetches what is scrolled to and is not there yet. */
  async reach(from: number, count: number): Promise<void> {
    const ask = this.asked;
    for (let piece = Math.floor(from / PIECE); piece * PIECE < from + count; piece++) {
      if (this.pieces.has(piece) || piece * PIECE >= this.rows().length) continue;
      this.pieces.add(piece);
      try {
        const { rows } = await api.board({ ...this.question(), offset: piece * PIECE, limit: PIECE });
        if (ask !== this.asked) return;
        this.rows.update((all) => all.toSpliced(piece * PIECE, rows.length, ...rows));
      } catch (error) {
        this.pieces.delete(piece);
        this.fail(error);
      }
    }
  }

  /** The first builds of each state, by the day that they are promised for. */
  async byState(): Promise<void> {
    try {
      const { states } = await api.board({ ...this.inAll(), limit: 1 });
      this.states.set(states);
      const shown = BOARD_STATES.filter((state) => (states[state] ?? 0) > 0);
      const pieces = await Promise.all(
        shown.map(async (state) => ({
          state,
          rows: (await api.board({ ...this.inAll(), state, sort: 'promised', limit: CARDS })).rows,
        })),
      );
      this.cards.set(pieces);
    } catch (error) {
      this.fail(error);
    }
  }

  private fail(error: unknown): void {
    if (!(error instanceof ApiError)) throw error;
    this.problem.set(error.message);
    this.status.set('failed');
  }
}
