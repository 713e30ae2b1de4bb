/** Where a value of the library comes from; the maker's sheet wins over all others. */
export const ORIGINS = ['maker', 'measured', 'trade', 'memory', 'borrowed', 'guess'] as const;
export type Origin = (typeof ORIGINS)[number];
