import { computed, type Signal } from '@angular/core';
import type { TabDescriptor } from './descriptor';

/** The tab that the address names; the first one where it names none of these. */
export function activeTab<T extends TabDescriptor>(
  tabs: readonly T[],
  named: Signal<string | undefined>,
): Signal<T['tab']> {
  return computed(() => (tabs.find(({ tab }) => tab === named()) ?? tabs[0])?.tab ?? '');
}
