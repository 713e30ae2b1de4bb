import { gearing } from './gearing';
import { identity } from './identity';
import { ledger } from './ledger';
import { pack } from './pack';
import { point } from './point';
import { road } from './road';
import type { SheetDescriptor, StationDescriptor, WebCapability } from './shared/descriptor';
import { unit } from './unit';

/** Every capability of the interface, in the order of work: routes, Rail, Line, keys and finder follow from it. */
export const CAPABILITIES: readonly WebCapability[] = [identity, point, gearing, road, unit, pack, ledger];

export const SHEETS: readonly SheetDescriptor[] = CAPABILITIES.flatMap(({ sheets }) => sheets);
export const STATION_LIST: readonly StationDescriptor[] = CAPABILITIES.flatMap(({ stations }) => stations);
