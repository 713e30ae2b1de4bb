import type { Inputs } from './capability';
import type { InForce, Readings } from './readings';

/** Something handed on, and which of its parts were looked at since. */
interface Seen {
  readonly view: unknown;
  /** Whether all that was looked at is the same in another. */
  same(now: unknown): boolean;
}

/** An object by the names of its parts. Parts of its parts are not told apart. */
function seenParts(of: object): Seen {
  const seen = new Set<PropertyKey>();
  let whole = false;
  let last: PropertyKey = '';
  const view = new Proxy(of as Record<PropertyKey, unknown>, {
    get: (target: Record<PropertyKey, unknown>, key) => {
      if (key !== last) {
        seen.add(key);
        last = key;
      }
      return target[key];
    },
    has: (target, key) => {
      seen.add(key);
      return Reflect.has(target, key);
    },
    ownKeys: (target) => {
      whole = true;
      return Reflect.ownKeys(target);
    },
  });
  const part = (from: object, key: PropertyKey): unknown => Reflect.get(from, key);
  return {
    view,
    same: (now) =>
      now === of ||
      (!whole &&
        typeof now === 'object' &&
        now !== null &&
        [...seen].every((key) => Object.is(part(of, key), part(now, key)))),
  };
}

/** Readings by their keys; whoever goes through them has looked at all. */
class SeenReadings implements Readings {
  readonly keysSeen = new Set<string>();
  whole = false;

  constructor(private readonly of: Readings) {}

  get(key: string): InForce | undefined {
    this.keysSeen.add(key);
    return this.of.get(key);
  }

  has(key: string): boolean {
    this.keysSeen.add(key);
    return this.of.has(key);
  }

  get size(): number {
    return this.all().size;
  }

  forEach(visit: (value: InForce, key: string, map: Readings) => void): void {
    this.all().forEach((value, key) => visit(value, key, this));
  }

  entries(): MapIterator<[string, InForce]> {
    return this.all().entries();
  }

  keys(): MapIterator<string> {
    return this.all().keys();
  }

  values(): MapIterator<InForce> {
    return this.all().values();
  }

  [Symbol.iterator](): MapIterator<[string, InForce]> {
    return this.all()[Symbol.iterator]();
  }

  private all(): Readings {
    this.whole = true;
    return this.of;
  }
}

function seenReadings(of: Readings): Seen {
  const view = new SeenReadings(of);
  return {
    view,
    same: (now) =>
      now === of || (!view.whole && [...view.keysSeen].every((key) => of.get(key) === (now as Readings).get(key))),
  };
}

/** What a capability was given, and what it looked at of the whole build and of the readings. */
export interface Watched {
  readonly inputs: Readonly<Record<string, unknown>>;
  /** Whether it would see the same in these. */
  same(inputs: Readonly<Record<string, unknown>>): boolean;
}

/** Hands inputs on so that it is known what was looked at: of the whole build by its parts, of the readings by their subjects. */
export function watch(inputs: Readonly<Record<string, unknown>>, { build, readings }: Inputs): Watched {
  const seen = new Map<string, Seen>();
  for (const [key, value] of Object.entries(inputs)) {
    if (value === build) seen.set(key, seenParts(build));
    else if (value === readings) seen.set(key, seenReadings(readings));
  }
  const names = Object.keys(inputs);
  return {
    inputs: { ...inputs, ...Object.fromEntries([...seen].map(([key, { view }]) => [key, view])) },
    same: (now) =>
      Object.keys(now).length === names.length &&
      names.every((key) => seen.get(key)?.same(now[key]) ?? Object.is(inputs[key], now[key])),
  };
}
