/** What the board is ordered by, and which promised days it shows; empty: any, and none. */
export const BOARD_SORTS = [
  { value: 'name', label: 'name' },
  { value: 'promised', label: 'promised' },
  { value: 'state', label: 'state' },
  { value: 'updated', label: 'changed' },
] as const;
export type BoardSort = (typeof BOARD_SORTS)[number]['value'];

export const BOARD_PROMISES = [
  { value: '', label: 'promised or not' },
  { value: 'overdue', label: 'overdue' },
  { value: 'week', label: 'within a week' },
] as const;
export type BoardPromise = (typeof BOARD_PROMISES)[number]['value'];
