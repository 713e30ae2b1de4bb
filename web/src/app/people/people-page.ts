import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Audit, People, Role } from '@hot-spline/model';
import { ownAddress } from '../base/server-path';
import { sayMoment } from '../base/day';
import { Header } from '../frame/header';
import { HooksPanel } from './hooks-panel';
import { Asking } from '../shared/asking';
import { Choice } from '../shared/choice';
import { api } from '../state/api';
import { Session } from '../state/session';
import { ShopSettings } from '../state/shop-settings';

const ROLE_OPTIONS: readonly { readonly value: Role; readonly label: string }[] = [
  { value: 'looker', label: 'looks' },
  { value: 'builder', label: 'builds' },
  { value: 'owner', label: 'owns the shop' },
];
/** So much of what was done is shown at a time. */
const PIECE = 50;

/** A text as a code to scan, as a picture. */
async function codeOf(text: string): Promise<string> {
  const { default: code } = await import('qrcode');
  const svg = await code.toString(text, { type: 'svg', errorCorrectionLevel: 'M', margin: 1 });
  return `data:image/svg+xml;base64,${btoa(svg)}`;
}

/** Who may come in: people and their roles, invitations, and what was done by whom. */
@Component({
  selector: 'hs-people-page',
  imports: [Choice, Header, HooksPanel, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './people-page.html',
  styleUrl: './people-page.scss',
})
export class PeoplePage {
  protected readonly session = inject(Session);
  private readonly shop = inject(ShopSettings);
  protected readonly roles = ROLE_OPTIONS;
  protected readonly people = signal<People | null>(null);
  protected readonly audit = signal<Audit>([]);
  protected readonly more = signal(false);
  private readonly asking = new Asking();
  protected readonly problem = this.asking.problem;
  protected readonly busy = this.asking.busy;
  protected readonly role = signal<Role>('builder');
  protected readonly link = signal<{ readonly url: string; readonly until: string; readonly code: string } | null>(
    null,
  );
  /** The link to the calendar; null while there is none. */
  protected readonly calendar = signal<string | null>(null);
  /** Where a device learns to trust the shop’s own authority. */
  protected readonly trust = signal<{ readonly url: string; readonly code: string } | null>(null);
  /** A link that leads to whoever opens it. */
  protected readonly nowhere = computed(() => /^https?:\/\/(localhost|127\.|\[::1\])/.test(this.link()?.url ?? ''));
  protected readonly owned = computed(() => this.session.me()?.owned ?? false);
  protected readonly alone = computed(() => this.session.me()?.door === 'alone');
  protected readonly moment = sayMoment;

  constructor() {
    void this.read();
  }

  protected async read(): Promise<void> {
    await this.session.ready();
    await this.asking.run(async () => {
      const people = await api.people();
      this.people.set(people);
      const audit = await api.audit(PIECE);
      this.audit.set(audit);
      this.more.set(audit.length === PIECE);
      this.calendarIs(await api.calendarLink());
      const { trustPort } = people;
      const trust = trustPort === null ? null : `http://${location.hostname}:${trustPort}/`;
      this.trust.set(trust === null ? null : { url: trust, code: await codeOf(trust) });
    });
  }

  protected async own(event: Event, name: string, password: string, again: string): Promise<void> {
    event.preventDefault();
    if (password !== again) {
      this.problem.set('The two passwords are not the same.');
      return;
    }
    await this.asking.run(async () => {
      this.session.take(await api.firstOwner(name, password));
      this.people.set(await api.people());
    });
  }

  protected change(id: string, change: { readonly role?: Role; readonly active?: boolean }): Promise<void> {
    return this.asking.run(async () => this.people.set(await api.changePerson(id, change)));
  }

  protected signOut(id: string): Promise<void> {
    return this.asking.run(async () => this.people.set(await api.signOutPerson(id)));
  }

  protected invite(): Promise<void> {
    return this.asking.run(async () => {
      const { token, until } = await api.invite(this.role());
      const url = `${this.shop.settings().address || ownAddress()}/invited#${token}`;
      this.link.set({ url, until, code: await codeOf(url) });
      this.people.set(await api.people());
    });
  }

  protected takeBack(id: string): Promise<void> {
    return this.asking.run(async () => {
      this.people.set(await api.dropInvitation(id));
      this.link.set(null);
    });
  }

  private calendarIs({ key }: { readonly key: string | null }): void {
    const at = this.shop.settings().address || ownAddress();
    this.calendar.set(key === null ? null : `${at}/api/calendar.ics?key=${key}`);
  }

  protected makeCalendar(): Promise<void> {
    return this.asking.run(async () => this.calendarIs(await api.makeCalendarLink()));
  }

  protected dropCalendar(): Promise<void> {
    return this.asking.run(async () => this.calendarIs(await api.dropCalendarLink()));
  }

  protected older(): Promise<void> {
    return this.asking.run(async () => {
      const last = this.audit().at(-1);
      if (!last) return;
      const piece = await api.audit(PIECE, last.id);
      this.audit.update((all) => [...all, ...piece]);
      this.more.set(piece.length === PIECE);
    });
  }
}
