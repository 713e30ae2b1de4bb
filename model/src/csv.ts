// Comma-separated files in and out: apart from the rest, for whoever needs them.
export { LIBRARY_CSV_HEADER, libraryCsv, readLibraryCsv } from './library/library-csv';
export { compareLibrary, type ComparedSpec } from './library/compare';
export { DRAWERS_CSV_HEADER, drawersCsv } from './library/drawers-csv';
export { readLibraryFile, type LibraryImport } from './files/library-file';
export { csvNumber, csvRows, csvText, type BadLine } from './base/csv';
export {
  CURVE_UNITS,
  WHEEL_LOSS,
  readTorqueCsv,
  type CurveUnit,
  type TorqueImport,
  type TorqueSaid,
} from './road/torque-csv';
export {
  TraceReader,
  traceColumns,
  type TraceChosen,
  type TraceColumns,
  type TraceImport,
  type TraceSpeedUnit,
  type TraceTimeUnit,
} from './road/trace-csv';
export {
  LEDGER_CSV_HEADER,
  compareLedger,
  ledgerCsv,
  readLedgerCsv,
  type ComparedLedger,
  type LedgerImport,
  type LedgerWriter,
} from './files/ledger-csv';
export { encodingOf, textOf, type TextEncoding } from './base/text';
export { PARTS_CSV_HEADER, partsCsv } from './wire/parts-csv';
export { BOARD_CSV_HEADER, boardCsv } from './wire/board-csv';
