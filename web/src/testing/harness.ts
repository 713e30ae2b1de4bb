import { provideZonelessChangeDetection, signal, type Provider, type Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { UnitSystem } from '@hot-spline/core';
import type { Build, LedgerEntry, LibrarySpec, PastSetup, SetUps } from '@hot-spline/model';
import { Store, provideState, provideStore } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { Bench } from '../app/state/bench';
import { boardFeature } from '../app/state/board';
import { editorActions, editorFeature } from '../app/state/editor';
import { lookingFeature } from '../app/state/looking';
import { ShopSettings } from '../app/state/shop-settings';
import { ShopSetUps } from '../app/state/set-ups';
import { uiActions, uiFeature } from '../app/state/ui';
import { libraryActions, libraryFeature } from '../app/state/library-slice';
import { providersOf } from '../app/sheets';
import { plateBuild } from './drift';

export const BUILD_ID = '30000000-0000-4000-8000-000000000001';

/** What other set-ups of the shop hold and taught, without a server. */
export const otherSetUps = (
  holdings: SetUps['holdings'] = [],
  past: readonly (PastSetup & { readonly build: string })[] = [],
): Provider => ({
  provide: ShopSetUps,
  useValue: {
    holdings: signal(holdings),
    past: signal(past),
    unreadable: signal([]),
    times: signal([]),
    problem: signal(null),
    read: () => Promise.resolve(),
  },
});

/** What the shop has set, without a server. */
export const shopOf = (
  decimal: 'point' | 'comma' | null,
  hourRate: number | null = null,
): Pick<ShopSettings, 'settings' | 'say' | 'open'> => ({
  open: signal(false),
  settings: signal({
    currency: 'EUR',
    decimal,
    name: '',
    logo: null,
    address: '',
    hourRate,
    weekHours: null,
  }).asReadonly(),
  say: (price) => `€${price}`,
});

/** Puts specs into the library that is open. @returns their ids, in order */
export function keepSpecs(...specs: LibrarySpec[]): string[] {
  const stored = specs.map((spec, i) => ({
    id: `60000000-0000-4000-8000-${String(i + 1).padStart(12, '0')}`,
    version: 1,
    archived: false,
    spec,
  }));
  TestBed.inject(Store).dispatch(libraryActions.loaded({ specs: stored }));
  return stored.map(({ id }) => id);
}

/** A store with an open build and no effects: what is changed is seen, nothing is sent. */
export function openBench(
  build: Build = plateBuild(),
  ledger: LedgerEntry[] = [],
  system: UnitSystem = 'metric',
  more: Provider[] = [],
): Bench {
  sessionStorage.clear();
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideRouter([{ path: '**', children: [] }]),
      provideStore(),
      provideState(boardFeature),
      provideState(editorFeature),
      provideState(uiFeature),
      provideState(lookingFeature),
      provideState(libraryFeature),
      MessageService,
      providersOf(),
      otherSetUps(),
      { provide: ShopSettings, useValue: shopOf(null) },
      ...more,
    ],
  });
  const store = TestBed.inject(Store);
  store.dispatch(uiActions.systemChosen({ system }));
  store.dispatch(libraryActions.loaded({ specs: [] }));
  store.dispatch(uiActions.axleChosen({ axle: 'rear' }));
  store.dispatch(editorActions.opened({ id: BUILD_ID }));
  store.dispatch(editorActions.loaded({ id: BUILD_ID, version: 1, build, ledger }));
  return TestBed.inject(Bench);
}

/** Waits until something is so. Generous: a busy machine is no failure. */
export async function until(done: () => boolean): Promise<void> {
  for (const end = Date.now() + 20_000; !done() && Date.now() < end;)
    await new Promise((resolve) => setTimeout(resolve, 10));
  if (!done()) throw new Error(`not in time: ${String(done)}`);
}

/** A rendered component and the ways in which somebody at the bench uses it. */
export class Screen<T> {
  private constructor(readonly fixture: ComponentFixture<T>) {}

  static async of<T>(component: Type<T>, inputs: Record<string, unknown> = {}): Promise<Screen<T>> {
    const fixture = TestBed.createComponent(component);
    document.body.append(fixture.nativeElement as HTMLElement);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    return new Screen(fixture);
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  /** Visible text with plain blanks. */
  get text(): string {
    return (this.element.textContent ?? '')
      .replace(/[\u00a0\u202f]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim();
  }

  /** Waits until something is so and shown. */
  async until(done: () => boolean): Promise<void> {
    await until(done);
    await this.fixture.whenStable();
  }

  all(selector: string): HTMLElement[] {
    return [...this.element.querySelectorAll<HTMLElement>(selector)];
  }

  find<E extends HTMLElement = HTMLElement>(selector: string): E {
    const found = this.element.querySelector<E>(selector);
    if (!found) throw new Error(`nothing matches ${selector}`);
    return found;
  }

  /** The field or select with this visible label. */
  field(label: string): HTMLInputElement | HTMLSelectElement {
    const found = this.all('label').find((candidate) => candidate.textContent?.trim() === label) as
      | HTMLLabelElement
      | undefined;
    const target = found ? document.getElementById(found.htmlFor) : null;
    if (!(target instanceof HTMLInputElement || target instanceof HTMLSelectElement))
      throw new Error(`no field ${label}`);
    return target;
  }

  async type(label: string, text: string, key = 'Enter'): Promise<void> {
    const field = this.field(label);
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await this.fixture.whenStable();
    field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await this.fixture.whenStable();
  }

  async choose(label: string, value: string): Promise<void> {
    const field = this.field(label);
    field.value = value;
    field.dispatchEvent(new Event('change', { bubbles: true }));
    await this.fixture.whenStable();
  }

  /** Chooses a file, by the name that the field says. */
  async upload(label: string, name: string, text: string): Promise<void> {
    const input = this.find<HTMLInputElement>(`input[type="file"][aria-label="${label}"]`);
    const files = new DataTransfer();
    files.items.add(new File([text], name));
    input.files = files.files;
    input.dispatchEvent(new Event('change'));
    await this.fixture.whenStable();
  }

  async click(name: string | HTMLElement): Promise<void> {
    const named = (button: HTMLElement): boolean =>
      (button.getAttribute('aria-label') ?? button.textContent ?? '').trim() === name;
    const buttons = 'button, a, hs-radios label';
    // What lies above the page, a popover or a dialog, is no child of the component.
    const above = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(`.p-popover :is(${buttons})`)];
    const target = typeof name === 'string' ? [...this.all(buttons), ...above()].find(named) : name;
    if (!target) throw new Error(`no button ${String(name)}`);
    target.click();
    await this.fixture.whenStable();
  }

  /** What the field says below itself. */
  said(label: string): string {
    const said = document.getElementById(`${this.field(label).id}-said`);
    return (said?.textContent ?? '').replace(/[\u00a0\u202f]/g, ' ').trim();
  }

  figure(id: string): string {
    const value = this.find(`[data-figure="${id}"] .value`).textContent ?? '';
    return value
      .replace(/[\u00a0\u202f]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim();
  }
}

/** The rear plate unit of the open build. */
export function plateOf(bench: Bench) {
  const plate = bench.build()?.axles.rear?.unit.plate;
  if (!plate) throw new Error('no plate unit');
  return plate;
}
