/** Sizes of labels, mm: ours, and two of ISO 216 (A8, A9) that any sheet is cut to; sizes on it in points. */
export const LABEL_SIZES = {
  '100 × 62': { wide: 100, high: 62, code: 118, name: 15, fact: 8 },
  '74 × 52': { wide: 74, high: 52, code: 88, name: 11, fact: 6 },
  '52 × 37': { wide: 52, high: 37, code: 58, name: 8, fact: 4.5 },
} as const;
export type LabelSize = keyof typeof LABEL_SIZES;
