/** Where a job stands, the most pressing first; each means one thing. */
export const BOARD_STATES = ['due', 'waiting', 'loop', 'gate', 'work', 'run-in', 'planned', 'done', 'open'] as const;
export type BoardState = (typeof BOARD_STATES)[number];

/** What a state is called, on the board and in its file. */
export const BOARD_STATE_WORDS: Readonly<Record<BoardState, string>> = {
  due: 'Due',
  waiting: 'Waiting',
  loop: 'In the loop',
  gate: 'At a gate',
  work: 'At work',
  'run-in': 'Run-in',
  planned: 'Not started',
  done: 'Done',
  open: 'No job',
};

/** What a job can wait for; each means one thing. */
export const RESTS_FOR = ['part', 'tool', 'machine-shop', 'customer', 'curing', 'other'] as const;
export type RestsFor = (typeof RESTS_FOR)[number];

/** What it is called where it is chosen or shown. */
export const RESTS_FOR_WORDS: Readonly<Record<RestsFor, string>> = {
  part: 'a part',
  tool: 'a tool',
  'machine-shop': 'the machine shop',
  customer: 'the customer',
  curing: 'something that sets or cools',
  other: 'something else',
};
