import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import { NavigationEnd, Router } from '@angular/router';
import type { Presence as Here } from '@hot-spline/model/document';
import { Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { newId } from '../base/new-id';
import { ApiError, api } from './api';
import { Changes } from './changes';
import { Session } from './session';
import { uiFeature } from './ui';

/** Who stays says so this often, and whoever was silent for so long has gone, ms. */
const AGAIN_MS = 20_000;
const GONE_MS = 50_000;
/** Steps from field to field are told together, ms. */
const TOGETHER_MS = 300;

interface Seen extends Here {
  readonly at: number;
}

/** Who else is in the build that is open, on which sheet, at which step, in which field. Nothing of it is kept anywhere. */
@Injectable({ providedIn: 'root' })
export class Presence {
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  private readonly who = inject(Store).selectSignal(uiFeature.selectWho);
  private readonly tab = newId();
  private readonly seen = signal<ReadonlyMap<string, Seen>>(new Map());
  private readonly place = signal({ build: null as string | null, sheet: '', step: '' });
  private readonly field = signal('');
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told = '';
  /** One person on one machine is alone; who has not said a name is nobody yet. */
  private readonly tells = computed(
    () => this.session.me() !== null && this.session.me()?.door !== 'alone' && this.who() !== '',
  );

  /** Everybody else in this build, one line a tab. */
  readonly others = computed<readonly Here[]>(() => {
    const { build } = this.place();
    return build === null ? [] : [...this.seen().values()].filter((one) => one.build === build);
  });

  constructor() {
    this.router.events.pipe(filter((event) => event instanceof NavigationEnd)).subscribe(() => this.look());
    this.look();
    const changes = inject(Changes);
    changes.heard.pipe(filter((change) => change.of === 'presence')).subscribe((here) => this.take(here));
    // What others answered before was heard by nobody here.
    changes.listens.subscribe(() => {
      this.told = '';
      if (this.tells()) this.tellSoon();
    });
    effect(() => {
      this.place();
      this.field();
      if (this.tells()) this.tellSoon();
    });
    const again = setInterval(() => this.again(), AGAIN_MS);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(again);
      clearTimeout(this.timer);
    });
  }

  /** Somebody types in a field, by its name; empty: in none any more. */
  types(field: string): void {
    this.field.set(/^[\w.-]{0,80}$/.test(field) ? field : '');
  }

  /** Who else types in a field of the build that is open; empty: nobody. */
  in(field: string): string {
    return this.others().find((one) => one.field === field && field !== '')?.who ?? '';
  }

  /** Who else has a step of the work open; empty: nobody. */
  at(step: string): string {
    return this.others().find((one) => one.step === step && step !== '')?.who ?? '';
  }

  private look(): void {
    const { root, queryParams } = this.router.parseUrl(this.router.url);
    const parts = root.children['primary']?.segments.map(({ path }) => path) ?? [];
    const build = parts[0] === 'builds' ? (parts[1] ?? null) : null;
    const step: unknown = queryParams['step'];
    this.place.set({ build, sheet: parts[2] ?? '', step: build !== null && typeof step === 'string' ? step : '' });
    this.field.set('');
  }

  private take(here: Here): void {
    if (here.tab === this.tab) return;
    const known = this.seen().has(here.tab);
    const seen = new Map(this.seen());
    if (here.build === null) seen.delete(here.tab);
    else seen.set(here.tab, { ...here, at: Date.now() });
    this.seen.set(seen);
    // Who comes is told who is here.
    if (!known && here.build !== null && here.build === this.place().build && this.tells()) {
      this.told = '';
      this.tellSoon();
    }
  }

  private tellSoon(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.tell(), TOGETHER_MS);
  }

  private again(): void {
    const gone = Date.now() - GONE_MS;
    if ([...this.seen().values()].some(({ at }) => at < gone))
      this.seen.set(new Map([...this.seen()].filter(([, { at }]) => at >= gone)));
    if (!this.tells() || this.place().build === null) return;
    this.told = '';
    void this.tell();
  }

  private async tell(): Promise<void> {
    const here = { tab: this.tab, who: this.who(), ...this.place(), field: this.field() };
    const text = JSON.stringify(here);
    // Nobody was told of this tab yet, and it is nowhere: nothing to say.
    if (text === this.told || (this.told === '' && here.build === null)) return;
    this.told = text;
    try {
      await api.presence(here);
    } catch (error) {
      // Away, or signed out, which others say: who is not heard of is gone for the others after a while.
      if (!(error instanceof ApiError)) throw error;
      this.told = '';
    }
  }
}
