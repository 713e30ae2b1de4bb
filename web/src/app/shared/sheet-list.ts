import { InjectionToken, inject, signal, type Signal, type Type } from '@angular/core';
import type { FieldFind, FrameParts, SheetDescriptor, StationDescriptor } from './descriptor';
import type { PaperLines } from './paper';

/** The sheets of every capability, in the order of work: given from the list, so that what is in the list needn't know it. */
export const SHEETS = new InjectionToken<readonly SheetDescriptor[]>('sheets');

/** The stations of every capability. */
export const STATION_LIST = new InjectionToken<readonly StationDescriptor[]>('stations');

/** What capabilities put into the frame. */
export const FRAME_PARTS = new InjectionToken<readonly FrameParts[]>('frame parts');

/** What capabilities put into one place of the frame, as soon as it has been fetched. */
export function framePartsOf(place: keyof FrameParts): Signal<readonly Type<unknown>[]> {
  const parts = signal<readonly Type<unknown>[]>([]);
  const loads = inject(FRAME_PARTS).flatMap((one) => one[place] ?? []);
  void Promise.all(loads.map((load) => load())).then((all) => parts.set(all));
  return parts.asReadonly();
}

/** What each capability says on papers, in the order of work; fetched when one is made. */
export const PAPER_LINES = new InjectionToken<readonly (() => Promise<PaperLines>)[]>('paper lines');

/** Fields of every capability, fetched when the finder opens. */
export const FIELD_LISTS = new InjectionToken<readonly (() => Promise<readonly FieldFind[]>)[]>('field lists');
