import { Injectable, computed, inject, signal } from '@angular/core';
import { Library } from '../state/library';
import { tabStore } from '../base/device-store';

const KEY = 'hot-spline.drawer';

/** The drawers of shims in the library, and the one that shims are taken from; it stays chosen over a reload. */
@Injectable({ providedIn: 'root' })
export class Drawers {
  private readonly all = inject(Library).ofKind('shims');
  /** Those for packs: a shim of another seat does not fit. */
  private readonly boxes = computed(() => this.all().filter(({ spec }) => spec.seat === 'pack'));
  private readonly chosen = signal(tabStore.get(KEY) ?? '');
  readonly box = computed(() => this.boxes().find(({ id }) => id === this.chosen()) ?? this.boxes()[0] ?? null);
  readonly options = computed(() => {
    const boxes = this.boxes().map(({ id, spec }) => ({ value: id, label: spec.name }));
    return boxes.length ? boxes : [{ value: '', label: 'none yet' }];
  });

  choose(id: string): void {
    tabStore.set(KEY, id);
    this.chosen.set(id);
  }
}

/** How many shims one side may have. */
export const PIECES = ['1', '2', '3', '4'] as const;
export const PIECE_OPTIONS = PIECES.map((value) => ({ value, label: value }));
