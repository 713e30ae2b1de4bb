export const CLOSE_TABS = [
  { tab: 'close', label: 'Close and fill' },
  { tab: 'run-in', label: 'Run in' },
] as const;
