import type { Derivation } from '../frame/derivation';
import { fact, type Words } from '../frame/finding';
import type { Signature } from '../frame/readings';
import {
  GATES,
  needsOf,
  type GateAsks,
  type GateContext,
  type GateName,
  type GateNeed,
  type KnownWork,
} from '../frame/work';
import { capital, type AxleName } from '../base/names';

export interface GateState {
  readonly gate: GateName;
  /** What a signature of it is kept under. */
  readonly key: string;
  readonly about: string;
  readonly needs: readonly GateNeed[];
  readonly met: boolean;
  readonly signature: Signature | null;
  /** Signed for what is in now. */
  readonly open: boolean;
  /** Figures that a signature now would stand for. */
  readonly figures: Readonly<Record<string, number>>;
}

export const gateKey = (axle: AxleName, gate: GateName): string => `${axle} ${gate}`;

/** Whether a signature still stands: another pinion shim, or a number of another assembly for B, closes it. */
export function stands(signature: Signature | null, figures: GateState['figures'], keys: readonly string[]): boolean {
  if (!signature) return false;
  // A job that leaves the axle shut has no such figure, then or now.
  return keys.every((key) => {
    const [then, now] = [signature.figures[key], figures[key]];
    return then === undefined || now === undefined ? then === now : Math.abs(then - now) < 0.005;
  });
}

/** What each gate asks where nobody has planned the work: all that a mesh can be asked. */
export const ASKS_ALL: GateAsks = { A: ['backlash', 'pattern'], B: ['backlash', 'pattern', 'pinion-preload'] };

/** A gate that also asks that nothing before it says stop. @param stops of its steps, without those that somebody put a name under */
export function withStops(gate: GateState, stops: readonly string[]): GateState {
  if (stops.length === 0) return gate;
  const need = { of: 'worked-out', need: 'Nothing before it says stop', met: false, says: stops.join('; ') } as const;
  return { ...gate, needs: [...gate.needs, need], met: false };
}

/** The two gates of one axle, with what each needs: of what it asks, and of nothing that the job leaves alone. */
export function gatesOf(
  axle: AxleName,
  known: KnownWork,
  signed: ReadonlyMap<string, Signature>,
  context: GateContext,
): Readonly<Record<GateName, GateState>> | null {
  const { figures, signs } = known;
  // Nobody has begun what a signature would stand for.
  if (!signs) return null;
  // Where nothing waits for it there is no Gate A, and nobody is held up.
  const nothingWaits = context.asks.A.length === 0;
  const gate = (name: GateName, needs: readonly GateNeed[]): GateState => {
    const key = gateKey(axle, name);
    const signature = signed.get(key) ?? null;
    const open = stands(signature, figures, signs.keys[name]);
    return {
      gate: name,
      key,
      about: signs.about[name],
      needs,
      met: needs.every(({ met }) => met),
      signature,
      open,
      figures,
    };
  };
  const a = gate('A', nothingWaits ? [] : needsOf('A', known, context));
  const openA = nothingWaits || a.open;
  const b = gate('B', [...(nothingWaits ? [] : [signedNeed(a, signs.stale)]), ...needsOf('B', known, context)]);
  return { A: { ...a, open: openA }, B: { ...b, open: openA && b.open } };
}

/** Gate B needs Gate A, where there is one. */
const signedNeed = ({ open, signature }: GateState, stale: string): GateNeed => ({
  of: 'together',
  need: 'Gate A signed',
  met: open,
  says: open ? `by ${signature?.name ?? ''}` : signature ? stale : 'not yet',
});

const words = {
  gate(f: {
    axle: string;
    gate: string;
    open: boolean;
    missing: string;
    note: string;
    by: string;
    stale: boolean;
  }): Words {
    const name = `${capital(f.axle)}: Gate ${f.gate}`;
    if (f.open && f.note !== '')
      return {
        title: `${name} opened with a note`,
        detail: `By ${f.by}: “${f.note}”. ${f.missing === '' ? '' : `Not met: ${f.missing}.`}`.trim(),
      };
    if (f.open) return { title: `${name} signed`, detail: `By ${f.by}.` };
    if (f.stale) return { title: `${name} to be signed again`, detail: 'What is in now is not what was signed.' };
    return { title: `${name} not signed`, detail: f.missing === '' ? 'All of it is met.' : `Missing: ${f.missing}.` };
  },
};

/** Gates that something waits for, as findings. */
export function deriveGates(axle: AxleName, gates: Readonly<Record<GateName, GateState>>, d: Derivation): void {
  for (const name of GATES) {
    if (gates[name].needs.length === 0) continue;
    const { needs, open, signature, met } = gates[name];
    const missing = needs.filter((one) => !one.met).map(({ need }) => need.charAt(0).toLowerCase() + need.slice(1));
    const note = signature?.note ?? '';
    d.finding({
      id: `plan.${axle}.gate-${name}`,
      verdict: !open ? 'not-yet' : note !== '' || !met ? 'watch' : 'fits',
      place: { sheet: 'gates', axle, field: `sign-${name}-${axle}` },
      station: 'final',
      figures: [],
      rule:
        name === 'A'
          ? 'what the mesh or the float reads is approved before anything final (common practice)'
          : 'final readings in spec and signed before the cover (common practice)',
      facts: {
        axle,
        gate: name,
        open,
        missing: missing.join(', '),
        note,
        by: signature?.name ?? '',
        stale: signature !== null && !open,
        needs: fact(missing.length, 'count'),
      },
      say: words.gate,
    });
  }
}
