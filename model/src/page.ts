// What a page needs before anything is derived: the document, its schemas and changes, and the wire. A door of its own beside
// the whole model, which reaches every derivation and would put them into the first script (decision 49). Names are the same.
export { gearingFigures } from './gearing/ids';
export type { LedgerEntry } from './frame/readings';
export { librarySpecSchema, type LibrarySpec } from './library/schema';
export { packFigures } from './pack/ids';
export { platesOf } from './pack/plates';
export { pointFigures } from './point/ids';
export { parseOrRefuse } from './base/refuse';
export { weakestLinks } from './shaft/links';
export { unitFigures } from './unit/ids';
export type { Unit } from './unit/schema';
export { SHOP_HEADER, routes } from './wire/index';
export type { Me, People, Person, Role } from './wire/people';
export type { Changed, Presence, CustomerWrite, ShopSettings } from './wire/bodies';
export type { BuildFile } from './files/build-file';
export {
  GonePlace,
  applyChanges,
  changesBetween,
  mergeChanges,
  share,
  type Change,
  type Overlap,
} from './document/changes';
export { ledgerEntrySchema } from './document/ledger';
export { AXLES, SIDES, type AxleName } from './base/names';
export { buildSchema, type Build } from './document/schema';
export { upgrade } from './document/upgrade';
export { FORMAT_VERSION } from './base/version';
