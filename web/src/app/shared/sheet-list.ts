import { InjectionToken } from '@angular/core';
import type { FrameParts, SheetDescriptor, StationDescriptor } from './descriptor';

/** The sheets of every capability, in the order of work: given from the list, so that what is in the list needn't know it. */
export const SHEETS = new InjectionToken<readonly SheetDescriptor[]>('sheets');

/** The stations of every capability. */
export const STATION_LIST = new InjectionToken<readonly StationDescriptor[]>('stations');

/** What capabilities put into the frame. */
export const FRAME_PARTS = new InjectionToken<readonly FrameParts[]>('frame parts');
