/** Where a job stands, the most pressing first. */
export const BOARD_STATES = ['due', 'waiting', 'loop', 'gate-b', 'work', 'run-in', 'planned', 'done', 'open'] as const;
export type BoardState = (typeof BOARD_STATES)[number];
