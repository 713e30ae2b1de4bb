import { Injectable, computed, inject, signal } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import type { Me } from '@hot-spline/model/document';
import { Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { ApiError, api, signInWanted } from './api';
import { Changes } from './changes';
import { uiActions } from './ui';

/** Who is signed in on this device, where the server wants to know. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly known = signal<Me | null>(null);
  /** Null until the server has said, and while it is away. */
  readonly me = this.known.asReadonly();
  readonly person = computed(() => this.known()?.person ?? null);
  readonly byName = computed(() => this.known()?.door === 'people');
  /** Somebody who only looks: the server takes nothing that they write. */
  readonly looks = computed(() => this.person()?.role === 'looker');
  /** Who keeps the shop: an owner, and whoever sits at the machine of a shop that asks nobody. */
  readonly keeps = computed(() => this.person()?.role === 'owner' || this.known()?.door === 'alone');
  private asked: Promise<void> | null = null;

  constructor() {
    inject(Changes)
      .heard.pipe(filter(({ of }) => of === 'people' || of === 'all'))
      .subscribe(() => void this.ask().then(() => this.send()));
    signInWanted.subscribe(() => void this.ask().then(() => this.send()));
  }

  /** Asks the server who this is, once for all who want to know at the start. */
  ready(): Promise<void> {
    return (this.asked ??= this.ask());
  }

  private async ask(): Promise<void> {
    try {
      this.take(await api.me());
    } catch (error) {
      // Away: what this device knew stands, and what it keeps it keeps in the name that it had.
      if (!(error instanceof ApiError)) throw error;
    }
  }

  /** Takes what the server says of who is signed in; what is written is stamped with that name. */
  take(me: Me): void {
    this.known.set(me);
    if (me.person) this.store.dispatch(uiActions.whoChosen({ who: me.person.name }));
  }

  /** To the door, where somebody has to sign in; back to where they were afterwards. */
  private send(): void {
    const { url, navigated } = this.router;
    // At the start the guard of the page that is wanted does it.
    if (!navigated) return;
    if (this.byName() && !this.person() && !url.startsWith('/sign-in') && !url.startsWith('/invited'))
      void this.router.navigate(['/sign-in'], { queryParams: url === '/' ? {} : { to: url } });
  }

  /** Signs out, and takes what this device kept of the server for while it is away: the next one may be somebody else. */
  async signOut(everywhere: boolean): Promise<void> {
    const me = await api.signOut(everywhere);
    await forget();
    this.take(me);
    this.store.dispatch(uiActions.whoChosen({ who: '' }));
    void this.router.navigate(['/sign-in']);
  }
}

/** Throws away what the service worker keeps of the server’s answers; a browser without one keeps none. */
async function forget(): Promise<void> {
  if (!('caches' in globalThis)) return;
  const names = await caches.keys();
  await Promise.all(names.filter((name) => name.includes(':data:')).map((name) => caches.delete(name)));
}

/** A page of the shop: whoever has to sign in does so first. */
export const onlyIn: CanActivateFn = async (_route, { url }) => {
  const [session, router] = [inject(Session), inject(Router)];
  await session.ready();
  if (!session.byName() || session.person()) return true;
  return router.createUrlTree(['/sign-in'], { queryParams: url === '/' ? {} : { to: url } });
};
