export const INSPECT_TABS = [
  { tab: 'parts', label: 'Parts' },
  { tab: 'pass', label: 'Will it pass' },
] as const;
