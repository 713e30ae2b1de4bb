import type { Working, UnitSystem } from '@hot-spline/core';
import { say } from '@hot-spline/core';
import type { Build, Derived, LedgerEntry } from '@hot-spline/model';
import type { LabelSize } from './label-sizes';

/** A station of the driveline as the Line shows it. */
export interface DrivelineStation {
  readonly name: string;
  readonly main: string;
  readonly sub: string;
}

/** Everything that papers are made of: nothing is worked out anew here. */
export interface PaperInput {
  readonly build: Build;
  readonly derived: Derived;
  readonly ledger: readonly LedgerEntry[];
  /** In which units: one system, or both beside each other. */
  readonly systems: readonly UnitSystem[];
  readonly shop: { readonly name: string; readonly logo: string | null };
  readonly customer: string;
  readonly stations: readonly DrivelineStation[];
  /** The final drive and why; null where it is not judged. */
  readonly choice: { readonly pair: string; readonly reasons: readonly string[] } | null;
  /** Photos as data addresses, with what they show. */
  readonly photos: readonly { readonly what: string; readonly data: string }[];
  /** What the QR code carries, and its picture. */
  readonly qr: { readonly text: string; readonly svg: string };
  readonly labelSize: LabelSize;
  readonly day: string;
  /** Who made the paper: the name that this device writes with. */
  readonly who: string;
  /** A moment in the device’s language. */
  readonly moment: (at: string) => string;
}

/** A number in the systems that are asked for: `0.20 mm (8.0 thou)`. */
export function inSystems(
  base: number,
  quantity: Parameters<typeof say>[1],
  systems: readonly UnitSystem[],
  decimals?: number,
  scale?: Parameters<typeof say>[4],
): string {
  const said = systems.map((system) => say(base, quantity, system, decimals, scale));
  const [first = '', second] = said;
  return plain(second !== undefined && second !== first ? `${first} (${second})` : first);
}

/** Thin spaces as ordinary ones that don’t break: the font of the papers has no thin one. */
export const plain = (text: string): string => text.replace(/[\u202f\u2009]/g, '\u00a0');

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

/** The ten figures that matter most, in this order, as far as they are there and can be explained. */
const MATTER = [
  /^gearing\.\w+\.final$/,
  /^gearing\.\w+\.speed$/,
  /^pack\.\w+\.left\.height$/,
  /^pack\.\w+\.right\.height$/,
  /^pack\.\w+\.wrench/,
  /^unit\.\w+\.drive\.lock$/,
  /^mesh\.\w+\.(backlash|float)$/,
  /^mesh\.\w+\.shim$/,
  /^preload\.\w+\.pinion$/,
  /^joint\.\w+\.short$/,
  /^joint\.\w+\.slip$/,
  /^joint\.\w+\.clearance$/,
  /^shaft\.\w+\.left\.yield$/,
  /^road\.time$/,
  /^gearing\./,
];
export const MOST_WORKINGS = 10;

export interface ShownWorking {
  readonly label: string;
  readonly working: Working;
}

export function workingsThatMatter({ figures }: Derived): readonly ShownWorking[] {
  const found = new Map<string, ShownWorking>();
  for (const pattern of MATTER)
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
