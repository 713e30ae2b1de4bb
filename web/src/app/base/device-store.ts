/**
 * What a browser keeps by name: localStorage for this device, sessionStorage for this tab. Where it refuses, or is full, what is set
 * is remembered until the page ends: nothing stops for it.
 */
export class DeviceStore {
  private readonly kept: Storage | null;
  /** What the browser did not take. */
  private readonly here = new Map<string, string>();

  /** @param open may throw, as the very name of a store does where a browser keeps nothing for a page */
  constructor(open: () => Storage) {
    let kept: Storage | null = null;
    try {
      kept = open();
    } catch (error) {
      console.warn('this browser keeps nothing for this page', error);
    }
    this.kept = kept;
  }

  get(key: string): string | null {
    return this.here.get(key) ?? this.kept?.getItem(key) ?? null;
  }

  /** @returns whether it outlives the page */
  set(key: string, text: string): boolean {
    try {
      this.kept?.setItem(key, text);
      this.here.delete(key);
    } catch (error) {
      console.warn('this browser has no room for', key, error);
      // What was kept before it is older.
      this.kept?.removeItem(key);
      this.here.set(key, text);
      return false;
    }
    if (!this.kept) this.here.set(key, text);
    return this.kept !== null;
  }

  remove(key: string): void {
    this.here.delete(key);
    this.kept?.removeItem(key);
  }

  keys(): string[] {
    return [...new Set([...Object.keys(this.kept ?? {}), ...this.here.keys()])];
  }
}

/** Of this device. */
export const deviceStore = new DeviceStore(() => localStorage);
/** Of this tab, over its reloads. */
export const tabStore = new DeviceStore(() => sessionStorage);

/** What the service worker of this page has kept of an answer; null where there is none, or the browser keeps nothing. */
export async function keptAnswer(address: string): Promise<Response | null> {
  try {
    return typeof caches === 'undefined' ? null : ((await caches.match(address, { ignoreVary: true })) ?? null);
  } catch (error) {
    console.warn('this browser keeps no answers for this page', error);
    return null;
  }
}
