/** Where a job stands, the most pressing first. */
export const BOARD_STATES = ['due', 'waiting', 'loop', 'gate-b', 'work', 'run-in', 'planned', 'done', 'open'] as const;
export type BoardState = (typeof BOARD_STATES)[number];

/** What a state is called, on the board and in its file. */
export const BOARD_STATE_WORDS: Readonly<Record<BoardState, string>> = {
  due: 'To be looked at',
  waiting: 'Waiting',
  loop: 'In the loop',
  'gate-b': 'Up to Gate B',
  work: 'At work',
  'run-in': 'Run-in',
  planned: 'Planned',
  done: 'Done',
  open: 'No job',
};
