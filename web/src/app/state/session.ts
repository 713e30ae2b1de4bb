import { Injectable, computed, inject, signal } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import type { Me } from '@hot-spline/model/document';
import { Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { ApiError, api, signInWanted } from './api';
import { deviceStore } from '../base/device-store';
import { Changes } from './changes';
import { MayWrite } from './may-write';
import { uiActions } from './ui';

/** Kept while somebody is in on this device. */
const IN_KEY = 'hot-spline.in';
/** Who was in when this device was used last waits so long for the server to say so again, ms. */
const AGAIN_MS = 1500;

/** Who is signed in on this device, where the server wants to know. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly mayWrite = inject(MayWrite);
  private readonly known = signal<Me | null>(null);
  /** Null until the server has said, and while it is away. */
  readonly me = this.known.asReadonly();
  readonly person = computed(() => this.known()?.person ?? null);
  readonly byName = computed(() => this.known()?.door === 'people');
  /** Somebody who only looks: the server takes nothing that they write. */
  readonly looks = this.mayWrite.looks.asReadonly();
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

  /** The same, but who was in here last is not kept waiting: should they be in no more, the answer sends them to the door. */
  async readySoon(): Promise<void> {
    const ready = this.ready();
    if (deviceStore.get(IN_KEY) === null) return ready;
    const soon = new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), AGAIN_MS));
    if ((await Promise.race([ready, soon])) === 'late') void ready.then(() => this.send());
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
    this.mayWrite.looks.set(me.person?.role === 'looker');
    // Where somebody is in, or nobody has to be: the next start waits no longer than it must for a server that hangs.
    if (me.door !== 'people' || me.person) deviceStore.set(IN_KEY, me.door);
    else deviceStore.remove(IN_KEY);
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
  await session.readySoon();
  if (!session.byName() || session.person()) return true;
  return router.createUrlTree(['/sign-in'], { queryParams: url === '/' ? {} : { to: url } });
};
