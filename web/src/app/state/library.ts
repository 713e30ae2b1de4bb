import { cutText } from '@hot-spline/core';
import { Injectable, computed, inject, type Signal } from '@angular/core';
import type { LibrarySpec } from '@hot-spline/model';
import type { ComparedSpec } from '@hot-spline/model/csv';
import { Store } from '@ngrx/store';
import { filter, take } from 'rxjs';
import type { Edit } from '../base/edit';
import type { StoredSpec } from './api';
import { libraryActions, libraryFeature } from './library-slice';
import { newId } from '../base/new-id';

type Kind = LibrarySpec['kind'];
export type SpecOf<K extends Kind> = Extract<LibrarySpec, { kind: K }>;

/** The shop's library as the sheets see it, and the ways to change it. */
@Injectable({ providedIn: 'root' })
export class Library {
  private readonly store = inject(Store);

  readonly state = this.store.selectSignal(libraryFeature.selectLibraryState);
  readonly active = computed(() => this.state().specs.filter(({ archived }) => !archived));

  /** Being read for the first time: what is in it is not known yet. */
  readonly awaited = computed(() => this.state().status === 'loading');

  /** Reads the library again. */
  open(): void {
    this.store.dispatch(libraryActions.opened());
  }

  ofKind<K extends Kind>(kind: K): Signal<{ id: string; spec: SpecOf<K> }[]> {
    return computed(() =>
      this.active().flatMap(({ id, spec }) => (spec.kind === kind ? [{ id, spec: spec as SpecOf<K> }] : [])),
    );
  }

  /** What this shop does where practitioners differ; undefined while it has not said. */
  readonly schools = computed(() =>
    this.active()
      .map(({ spec }) => spec)
      .find((spec) => spec.kind === 'schools'),
  );

  /** Runs what rests on the library: at once, or when it has been read if it is being read right now. */
  whenRead(run: () => void): void {
    this.store
      .select(libraryFeature.selectStatus)
      .pipe(
        filter((status) => status !== 'loading'),
        take(1),
      )
      .subscribe(run);
  }

  /** @returns the id of the new spec */
  add(spec: LibrarySpec, id = newId()): string {
    this.store.dispatch(libraryActions.written({ id, version: 0, spec }));
    return id;
  }

  change<K extends Kind>(id: string, kind: K, edit: Edit<SpecOf<K>>): void {
    const known = this.state().specs.find((one) => one.id === id);
    if (known?.spec.kind !== kind) return;
    const spec = edit(known.spec as SpecOf<K>);
    this.store.dispatch(libraryActions.written({ id, version: known.version, spec }));
  }

  /** Takes in what a file brings: new specs, and changes on top of the version that they were compared with. */
  bring(compared: readonly ComparedSpec[]): void {
    for (const { fate, id, version, spec } of compared)
      if (fate === 'new') this.add(spec, id ?? newId());
      else if (fate === 'changed' && id !== null) this.store.dispatch(libraryActions.written({ id, version, spec }));
  }

  /** Where a spec was changed elsewhere first: ours goes on top, or becomes a spec of its own beside the other. */
  settle(current: StoredSpec, keep: 'ours' | 'theirs'): void {
    const ours = this.state().specs.find(({ id }) => id === current.id)?.spec;
    this.store.dispatch(libraryActions.settled({ current, keep }));
    if (keep === 'theirs' && ours) this.add({ ...ours, name: `${cutText(ours.name, 70)}, mine` });
  }

  putAway(id: string, archived: boolean): void {
    this.store.dispatch(libraryActions.putAway({ id, archived }));
  }
}
