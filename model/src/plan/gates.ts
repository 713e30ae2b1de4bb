import type { Asked } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import type { Signature } from '../frame/readings';
import { meshFigures } from '../mesh/ids';
import { backlashOf } from '../mesh/state';
import { preloadFigures } from '../preload/ids';
import type { PreloadAxle } from '../preload/state';
import { capital, type AxleName } from '../base/names';
import type { Words } from '../frame/finding';
import type { MeshAxle } from '../mesh/axle';
import { NOTHING, needsOfA, needsOfB, type GateEvidence, type GateNeed } from './gate-needs';

export const GATES = ['A', 'B'] as const;
export type GateName = (typeof GATES)[number];

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
export type GateAsks = Readonly<Record<GateName, readonly Asked[]>>;

/** A gate that also asks that nothing before it says stop. @param stops of its steps, without those that somebody put a name under */
export function withStops(gate: GateState, stops: readonly string[]): GateState {
  if (stops.length === 0) return gate;
  const need = { need: 'Nothing before it says stop', met: false, says: stops.join('; ') };
  return { ...gate, needs: [...gate.needs, need], met: false };
}

/** Figures that a signature stands for. */
function figuresOf({ axle, now }: MeshAxle, { last }: PreloadAxle): Readonly<Record<string, number>> {
  const read = now && backlashOf(now);
  return {
    ...(now && {
      assembly: now.number,
      [meshFigures.shim(axle)]: now.pinionMm,
      [meshFigures.ring(axle)]: now.ringMm,
    }),
    ...(read && {
      [meshFigures.mean(axle)]: read.round.meanMm,
      [meshFigures.least(axle)]: read.round.minMm,
      [meshFigures.most(axle)]: read.round.maxMm,
    }),
    ...(last && { [preloadFigures.pinion(axle)]: last.nm }),
  };
}

/** The two gates of one axle, with what each needs: of what it asks, and of nothing that the job leaves alone. */
export function gatesOf(
  mesh: MeshAxle,
  preload: PreloadAxle,
  signed: ReadonlyMap<string, Signature>,
  asks: GateAsks = ASKS_ALL,
  evidence: GateEvidence = NOTHING,
): Readonly<Record<GateName, GateState>> {
  const { axle } = mesh;
  const figures = figuresOf(mesh, preload);
  const known = { mesh, preload, evidence };
  // Where nothing waits for it there is no Gate A, and nobody is held up.
  const nothingWaits = asks.A.length === 0;
  const gate = (name: GateName, about: string, needs: readonly GateNeed[], of: readonly string[]): GateState => {
    const key = gateKey(axle, name);
    const signature = signed.get(key) ?? null;
    const open = stands(signature, figures, of);
    return { gate: name, key, about, needs, met: needs.every(({ met }) => met), signature, open, figures };
  };
  const shim = meshFigures.shim(axle);
  const a = gate(
    'A',
    'Before a final bearing is pressed or a spacer is crushed.',
    nothingWaits ? [] : needsOfA(known, asks),
    [shim],
  );
  const openA = nothingWaits || a.open;
  const needs = [...(nothingWaits ? [] : [signedNeed(a)]), ...needsOfB(known, asks)];
  const b = gate('B', 'Before the cover goes on.', needs, ['assembly', shim]);
  return { A: { ...a, open: openA }, B: { ...b, open: openA && b.open } };
}

/** Gate B needs Gate A, where there is one. */
const signedNeed = ({ open, signature }: GateState): GateNeed => ({
  need: 'Gate A signed',
  met: open,
  says: open ? `by ${signature?.name ?? ''}` : signature ? 'for another pinion shim' : 'not yet',
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
