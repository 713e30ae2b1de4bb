import { deviceStore } from '../base/device-store';

export const PARITIES = ['none', 'even', 'odd'] as const;

/** How a gauge is read; kept on the device, for each gauge by itself. */
export interface GaugeSettings {
  /** What it is called; stands beside every reading. */
  readonly name: string;
  readonly baudRate: number;
  readonly parity: (typeof PARITIES)[number];
  /** A pattern of one's own; empty: number and unit are found. */
  readonly pattern: string;
  /** What it reads in, where its lines don't say; empty: nobody has said. */
  readonly unit: string;
}

const KEY = 'hot-spline.gauges';
const USUAL: GaugeSettings = { name: '', baudRate: 9600, parity: 'none', pattern: '', unit: '' };

function stored(): Readonly<Record<string, Partial<GaugeSettings>>> {
  try {
    return (JSON.parse(deviceStore.get(KEY) ?? '{}') ?? {}) as Record<string, Partial<GaugeSettings>>;
  } catch (error) {
    console.warn('the settings of the gauges on this device can’t be read', error);
    return {};
  }
}

/** What is kept for a gauge. @param device what tells it from others, as far as the browser knows */
export const settingsOf = (device: string): GaugeSettings => ({ ...USUAL, ...stored()[device] });

export function storeSettings(device: string, settings: GaugeSettings): void {
  deviceStore.set(KEY, JSON.stringify({ ...stored(), [device]: settings }));
}
