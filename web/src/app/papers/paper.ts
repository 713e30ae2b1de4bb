import type { Working } from '@hot-spline/core';
import type { DrivelineStation, PaperInput } from '../shared/paper';

/** The driveline as a drawing of its own. @param words whether it says what the stations are */
export function drivelineSvg(stations: readonly DrivelineStation[], words = true): string {
  const width = 720;
  const height = words ? 86 : 56;
  const step = width / Math.max(1, stations.length);
  const escape = (text: string): string =>
    text.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`).replace(/[\u202f\u00a0]/g, ' ');
  const short = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
  const shown = stations.map((station, i) => {
    const x = step * (i + 0.5);
    const last = i === stations.length - 1;
    const shape = last
      ? `<circle cx="${x}" cy="34" r="15" fill="none" stroke="#26346b" stroke-width="2"/><circle cx="${x}" cy="34" r="8" fill="none" stroke="#26346b" stroke-width="1.5"/>`
      : `<rect x="${x - 15}" y="22" width="30" height="24" rx="4" fill="#fff" stroke="#26346b" stroke-width="2"/>`;
    if (!words) return shape;
    return `${shape}<text x="${x}" y="64" font-size="10" font-weight="bold" text-anchor="middle">${escape(short(station.main, 13))}</text><text x="${x}" y="77" font-size="8" text-anchor="middle">${escape(short(station.name, 15))}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Roboto, sans-serif" fill="#1b1f2a"><line x1="${step / 2}" x2="${width - step / 2}" y1="34" y2="34" stroke="#26346b" stroke-width="3"/>${shown.join('')}</svg>`;
}

export const MOST_WORKINGS = 10;

export interface ShownWorking {
  readonly label: string;
  readonly working: Working;
}

/** What each capability wants explained most, then second most and so on, then whatever else can be. */
export function workingsThatMatter({
  derived: { figures },
  lines,
}: Pick<PaperInput, 'derived' | 'lines'>): readonly ShownWorking[] {
  const found = new Map<string, ShownWorking>();
  const wanted = lines
    .flatMap(({ explains = [] }) => explains.map((pattern, rank) => ({ pattern, rank })))
    .sort((a, b) => a.rank - b.rank)
    .map(({ pattern }) => pattern);
  for (const pattern of [...wanted, /^/])
    for (const [id, figure] of figures) {
      if (found.size >= MOST_WORKINGS) return [...found.values()];
      if (!pattern.test(id) || found.has(id) || !figure.explain || figure.value === null) continue;
      found.set(id, { label: figure.label, working: figure.explain() });
    }
  return [...found.values()];
}

/**
 * What a label’s code carries: the address that opens the build, and behind it what was read, in letters that an address may
 * have, so that it can be read without a server too.
 */
export function labelText(origin: string, id: string, facts: readonly string[]): string {
  const readable = facts
    .join('__')
    .replace(/[\s\u202f\u00a0]+/g, '_')
    .replace(/·/g, '')
    .replace(/[–−]/g, '-')
    .replace(/[^\w./:+~,-]/g, '');
  return `${origin}/builds/${id}#${readable}`.slice(0, 900);
}
