export const SETS_TABS = [
  { tab: 'search', label: 'Search' },
  { tab: 'shelf', label: 'Shelf and rules' },
  { tab: 'course', label: 'Course' },
] as const;
