export const WORK_TABS = [
  { tab: 'order', label: 'Order of work' },
  { tab: 'step', label: 'One step' },
  { tab: 'facts', label: 'Facts of the job' },
] as const;
export const PARTS_TABS = [
  { tab: 'parts', label: 'Parts' },
  { tab: 'tools', label: 'Tools' },
  { tab: 'trays', label: 'Trays' },
] as const;
