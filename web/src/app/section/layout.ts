import type { Point, Section } from '@hot-spline/core';

/** How a section lies on the paper: millimetres to pixels. */
export interface Fit {
  readonly width: number;
  readonly height: number;
  readonly scale: number;
  readonly to: (point: Point) => Point;
}

/** @param margins in px: above and below for labels, at both sides; @param most height, px */
export function fitOf(
  { box }: Section,
  width: number,
  most: number,
  margins: { readonly above: number; readonly below: number; readonly side: number },
): Fit {
  const room = { x: Math.max(40, width - 2 * margins.side), y: Math.max(40, most - margins.above - margins.below) };
  const scale = Math.min(room.x / box.width, room.y / box.height);
  const left = (width - box.width * scale) / 2;
  return {
    width,
    height: Math.round(box.height * scale + margins.above + margins.below),
    scale,
    to: ({ x, y }) => ({ x: left + (x - box.x) * scale, y: margins.above + (y - box.y) * scale }),
  };
}

export interface Label {
  readonly text: string;
  /** Where its leader begins, px. */
  readonly anchor: Point;
  readonly strong: boolean;
}

export interface Laid extends Label {
  readonly x: number;
  readonly y: number;
  readonly edge: 'above' | 'below';
}

export const LINE_PX = 17;
const LETTER_PX = 6.7;
const GAP_PX = 14;

/** How wide a label is taken to be. */
export const wide = (text: string): number => text.length * LETTER_PX;

interface Placed extends Label {
  x: number;
}

/** In a row, in the order of their anchors, each as near to its own as the others and the paper allow. */
function inRow(labels: readonly Label[], width: number): Placed[] {
  const row = [...labels].sort((a, b) => a.anchor.x - b.anchor.x).map((one) => ({ ...one, x: one.anchor.x }));
  const apart = (a: Label, b: Label): number => (wide(a.text) + wide(b.text)) / 2 + GAP_PX;
  const half = ({ text }: Label): number => wide(text) / 2;
  row.forEach((one, i) => {
    const before = row[i - 1];
    one.x = Math.max(one.x, before ? before.x + apart(before, one) : half(one));
  });
  for (let i = row.length - 1; i >= 0; i--) {
    const [one, after] = [row[i] as Placed, row[i + 1]];
    one.x = Math.min(one.x, after ? after.x - apart(one, after) : width - half(one));
  }
  return row;
}

const needs = (labels: readonly Label[]): number =>
  labels.reduce((sum, { text }) => sum + wide(text) + GAP_PX, -GAP_PX);

/**
 * Labels outside of the drawing, above or below, whichever is nearer while there is room: none lies over another one, none leaves
 * the paper, no leader goes through a word.
 * @returns rows that each edge takes, and a function that lays them once the margins are known
 */
export function layLabels(
  labels: readonly Label[],
  width: number,
  middle: number,
): { readonly above: number; readonly below: number; readonly at: (top: number, bottom: number) => readonly Laid[] } {
  const edges: Record<'above' | 'below', Label[]> = { above: [], below: [] };
  for (const label of labels) {
    const near = label.anchor.y < middle ? 'above' : 'below';
    const far = near === 'above' ? 'below' : 'above';
    // The words of one edge stand in one row: what has no room there goes to the other one, or is left to the text beside it.
    const edge = [near, far].find((one) => needs([...edges[one as 'above'], label]) <= width) as 'above' | undefined;
    if (edge) edges[edge].push(label);
  }
  const laid = { above: inRow(edges.above, width), below: inRow(edges.below, width) };
  return {
    above: Number(laid.above.length > 0),
    below: Number(laid.below.length > 0),
    at: (top, bottom) => [
      ...laid.above.map((one) => ({ ...one, edge: 'above' as const, y: top - 10 })),
      ...laid.below.map((one) => ({ ...one, edge: 'below' as const, y: bottom + 20 })),
    ],
  };
}
