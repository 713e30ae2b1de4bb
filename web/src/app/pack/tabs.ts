export const PACK_TABS = [
  { tab: 'stack', label: 'Stack' },
  { tab: 'measure', label: 'Measure' },
  { tab: 'inspect', label: 'Inspect' },
  { tab: 'shims', label: 'Shims from stock' },
  { tab: 'springs', label: 'Plates and springs' },
  { tab: 'wanted', label: 'Wanted' },
  { tab: 'wrench', label: 'Torque wrench' },
  { tab: 'sure', label: 'How sure' },
] as const;
