import type { FlankPattern } from '@hot-spline/model';

const TOOTH = { wide: 120, high: 40, left: 10, top: 8 } as const;

/** A flank with where its contact was seen: root below, toe on the left. Our own drawing. */
export function flankSvg({ u, v, length, height, turnedDeg, shape }: FlankPattern): string {
  const x = TOOTH.left + ((u + 1) / 2) * TOOTH.wide;
  const y = TOOTH.top + TOOTH.high - ((v + 1) / 2) * TOOTH.high;
  const patch =
    shape === 'one' || shape === 'faint'
      ? `<ellipse cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" rx="${((length * TOOTH.wide) / 2).toFixed(1)}" ry="${((height * TOOTH.high) / 2).toFixed(1)}" transform="rotate(${turnedDeg} ${x.toFixed(1)} ${y.toFixed(1)})" fill="#c8881a" fill-opacity="${shape === 'faint' ? 0.25 : 0.7}"/>`
      : '';
  const { left, top, wide, high } = TOOTH;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="140" height="62" viewBox="0 0 140 62" font-family="Roboto, sans-serif" font-size="7" fill="#1b1f2a"><path d="M${left} ${top + 6}L${left + wide} ${top}V${top + high}H${left}Z" fill="none" stroke="#26346b" stroke-width="1"/>${patch}<text x="${left}" y="58">toe</text><text x="${left + wide}" y="58" text-anchor="end">heel</text></svg>`;
}
