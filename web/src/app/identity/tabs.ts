export const BRIEF_TABS = [
  { tab: 'job', label: 'Job and car' },
  { tab: 'axle', label: 'Axle' },
] as const;
