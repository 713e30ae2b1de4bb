export const JOINT_TABS = [
  { tab: 'bolts', label: 'Bolts and clamp' },
  { tab: 'torque', label: 'Draw it up' },
  { tab: 'heat', label: 'Heat to fit' },
] as const;
