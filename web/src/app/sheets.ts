import type { Routes } from '@angular/router';
import { box } from './box';
import { gearing } from './gearing';
import { inspect } from './inspect';
import { joint } from './joint';
import { identity } from './identity';
import { ledger } from './ledger';
import { mesh } from './mesh';
import { pack } from './pack';
import { papers } from './papers';
import { plan } from './plan';
import { runin } from './runin';
import { shaft } from './shaft';
import { practice } from './practice';
import { point } from './point';
import { preload } from './preload';
import { road } from './road';
import type { SheetDescriptor, StationDescriptor, WebCapability } from './shared/descriptor';
import { FIELD_LISTS, FRAME_PARTS, PAPER_LINES, SHEETS, STATION_LIST } from './shared/sheet-list';
import { summary } from './summary';
import { unit } from './unit';

/** Every capability of the interface, in the order of work: routes, Rail, Line, keys and finder follow from it. */
export const CAPABILITIES: readonly WebCapability[] = [
  identity,
  point,
  gearing,
  road,
  box,
  unit,
  pack,
  plan,
  inspect,
  joint,
  shaft,
  runin,
  mesh,
  preload,
  practice,
  summary,
  papers,
  ledger,
];

const sheetsOf = (list: readonly WebCapability[]): SheetDescriptor[] => list.flatMap(({ sheets }) => sheets);
const stationsOf = (list: readonly WebCapability[]): StationDescriptor[] => list.flatMap(({ stations }) => stations);

/** What the frame and the sheets know of the list. @param list another one: for tests */
export const providersOf = (list: readonly WebCapability[] = CAPABILITIES) => [
  { provide: SHEETS, useValue: sheetsOf(list) },
  { provide: STATION_LIST, useValue: stationsOf(list) },
  { provide: FRAME_PARTS, useValue: list.flatMap(({ frame }) => frame ?? []) },
  { provide: FIELD_LISTS, useValue: list.flatMap(({ fields }) => fields ?? []) },
  { provide: PAPER_LINES, useValue: list.flatMap(({ papers: of }) => of ?? []) },
];

/** The sheets of one build, as routes below it. */
export const sheetRoutes = (list: readonly WebCapability[] = CAPABILITIES): Routes =>
  sheetsOf(list).map(({ sheet, load }) => ({ path: sheet, loadComponent: load }));
