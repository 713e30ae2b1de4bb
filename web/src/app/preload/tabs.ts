export const PRELOAD_TABS = [
  { tab: 'pinion', label: 'Pinion' },
  { tab: 'side', label: 'Side preload' },
] as const;
