export const GEARING_TABS = [
  { tab: 'speed', label: 'Speed and rpm' },
  { tab: 'thrust', label: 'Thrust' },
  { tab: 'ladder', label: 'Rpm ladder' },
  { tab: 'match', label: 'Match' },
  { tab: 'find', label: 'Find a ratio' },
  { tab: 'heat', label: 'Heat' },
  { tab: 'noise', label: 'Whine' },
] as const;
