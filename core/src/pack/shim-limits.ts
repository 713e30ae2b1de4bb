/** What a drawer and a question to it may hold. */
export const SHIM_LIMITS = {
  sides: { min: 1, max: 2, integer: true },
  fixedMm: { min: 0, max: 1000, unit: 'mm' },
  targetMm: { min: 0, max: 1000, unit: 'mm' },
  thicknessMm: { above: 0, max: 100, unit: 'mm' },
  count: { min: 0, max: 10_000, integer: true },
  stock: { min: 0, max: 400, integer: true },
  maxPiecesPerSide: { min: 0, max: 6, integer: true },
} as const;
