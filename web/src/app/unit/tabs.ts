export const UNIT_TABS = [
  { tab: 'unit', label: 'This unit' },
  { tab: 'compare', label: 'Side by side' },
  { tab: 'tune', label: 'Tune' },
] as const;
