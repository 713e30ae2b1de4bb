/** Sizes that label printers and sheets of labels have, mm; in points for the paper. */
export const LABEL_SIZES = {
  '100 × 62': { wide: 100, high: 62, code: 118, name: 15, fact: 8 },
  '89 × 36': { wide: 89, high: 36, code: 76, name: 11, fact: 6 },
  '62 × 29': { wide: 62, high: 29, code: 60, name: 9, fact: 5 },
} as const;
export type LabelSize = keyof typeof LABEL_SIZES;
