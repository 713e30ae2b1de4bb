export const BASELINE_TABS = [
  { tab: 'came', label: 'As it came' },
  { tab: 'sheet', label: 'Spec sheet' },
  { tab: 'sequence', label: 'Adjuster sequence' },
  { tab: 'stack', label: 'Shaft stack' },
] as const;

export const MESH_TABS = [
  { tab: 'mesh', label: 'Backlash and pattern' },
  { tab: 'tries', label: 'Every try' },
] as const;
