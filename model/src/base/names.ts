/** Words of the document that every capability shares. */
export const USES = ['street', 'drag', 'circuit', 'hill-climb', 'drift', 'oval', 'rock', 'raid'] as const;
export const AXLES = ['rear', 'front'] as const;
export const SIDES = ['left', 'right'] as const;

export type AxleName = (typeof AXLES)[number];
export type Side = (typeof SIDES)[number];
export type Use = (typeof USES)[number];

/** `Rear`, `Left`: at the start of a sentence. */
/** What somebody wrote as a sentence: with one stop at its end, theirs or ours. */
export const sentence = (text: string): string => text.trim().replace(/[.!?…]*$/, (end) => end || '.');
export const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);
