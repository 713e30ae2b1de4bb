export const BOX_TABS = [
  { tab: 'stack', label: 'Stack' },
  { tab: 'drum', label: 'Drum' },
  { tab: 'float', label: 'End float' },
  { tab: 'steps', label: 'Apart and together' },
  { tab: 'counted', label: 'Counted' },
  { tab: 'life', label: 'Thrust and hours' },
  { tab: 'synchro', label: 'Synchro' },
  { tab: 'inside', label: 'What is in it' },
] as const;
