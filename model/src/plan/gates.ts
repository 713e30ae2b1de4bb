import { entryBase, type Asked } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import type { InForce, Signature } from '../frame/readings';
import { allRound, patternFits } from '../mesh/derive';
import { shiftTo } from '../mesh/shifts';
import { meshFigures } from '../mesh/ids';
import { backlashOf, isFinal, patternOf } from '../mesh/state';
import { preloadVerdict } from '../preload/derive';
import { preloadFigures } from '../preload/ids';
import type { PreloadAxle } from '../preload/state';
import { capital, type AxleName } from '../base/names';
import type { Words } from '../frame/finding';
import type { BacklashRead, MeshAxle, PatternRead } from '../mesh/axle';

export const GATES = ['A', 'B'] as const;
export type GateName = (typeof GATES)[number];

/** One thing that a gate needs. */
export interface GateNeed {
  readonly need: string;
  readonly met: boolean;
  /** What was read, or what is missing. */
  readonly says: string;
}

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

const inBand = ({ mm }: BacklashRead, [low, high]: readonly [number, number]): boolean =>
  mm.every((one) => one >= low - 1e-9 && one <= high + 1e-9);

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

/** What other sheets know of what a gate asks. */
export interface GateEvidence {
  /** Every round of the ring bolts is whole. */
  readonly ringBolts: boolean;
  /** The drag of the pinion that stays, carrier out; null: not read. */
  readonly dragNm: number | null;
  /** How the locker held its pressure; null: not tested. */
  readonly leak: 'holds' | 'loses' | null;
  /** The float of the box’s input was read again with its shim in. */
  readonly floatRead: boolean;
}
const NOTHING: GateEvidence = { ringBolts: false, dragNm: null, leak: null, floatRead: false };

/** How far backlash and the middle of a contact (of half a tooth) may lie from what the same gears read before: guards of ours. */
export const REPEATS_MM = 0.05;
const REPEATS_CONTACT = 0.25;

/** Backlash and pattern of reused gears against those of before; where nothing was read before, the sheet's band and the pattern. */
function repeats(mesh: MeshAxle, read: BacklashRead | null, seen: PatternRead | null): GateNeed {
  const before = mesh.came.backlash;
  const need = 'Backlash and pattern as before';
  if (!read || !seen) return { need, met: false, says: !read ? 'backlash not read in the final state' : 'not painted' };
  if (!before)
    return {
      need,
      met: mesh.band !== null && inBand(read, mesh.band) && patternFits(seen, mesh.loadedFlank),
      says: 'nothing was read before: the sheet’s band and the pattern decide',
    };
  const apart = Math.abs(read.round.meanMm - before.round.meanMm);
  const painted = mesh.came.pattern;
  // A contact that nobody painted before is judged as it is.
  const stayed = painted
    ? (['drive', 'coast'] as const).every((flank) =>
        (['u', 'v'] as const).every(
          (way) => Math.abs(seen.value[flank][way] - painted.value[flank][way]) <= REPEATS_CONTACT + 1e-9,
        ),
      )
    : patternFits(seen, mesh.loadedFlank);
  const contact = painted ? (stayed ? 'contact as before' : 'the contact has moved') : 'contact not painted before';
  return {
    need,
    met: apart <= REPEATS_MM + 1e-9 && stayed,
    says: `backlash ${apart.toFixed(2)} mm from before, ${REPEATS_MM} at most (ours); ${contact}`,
  };
}

/** The reading after which the trial is right, backlash and pattern together; null while one of them is not. */
export function settled(mesh: MeshAxle, asBefore: boolean): InForce | null {
  const read = mesh.now?.backlash.trial ?? null;
  const seen = mesh.now?.pattern.trial ?? null;
  if (!read || !seen || !mesh.band) return null;
  const up = shiftTo(read.state, mesh).mm;
  const good = asBefore
    ? repeats(mesh, read, seen).met
    : allRound(read) && inBand(read, [mesh.band[0] + up, mesh.band[1] + up]) && patternFits(seen, mesh.loadedFlank);
  return good ? (seen.reading.seq > read.reading.seq ? seen.reading : read.reading) : null;
}

/** The drag of a pinion that stays against the band of bearings that have run, where its sheet has one. */
function dragNeed(nm: number | null, { sheet }: MeshAxle): Pick<GateNeed, 'met' | 'says'> {
  if (nm === null) return { met: false, says: 'not read' };
  const band = sheet.pinionTorqueUsed?.value;
  if (!band) return { met: true, says: 'read; nobody has said a band for bearings that have run' };
  const met = nm >= entryBase(band.low) - 1e-9 && nm <= entryBase(band.high) + 1e-9;
  return { met, says: met ? 'in band' : 'out of its band' };
}

function totalNeed(nm: number, { value: { low, high } }: NonNullable<MeshAxle['sheet']['totalTorque']>): GateNeed {
  const over = nm > entryBase(high) + 1e-9;
  const met = !over && nm >= entryBase(low) - 1e-9;
  return {
    need: 'Total turning torque in band',
    met,
    says: met ? 'in band' : over ? 'over its band' : 'below its band',
  };
}

/** A gate that also asks that nothing before it says stop. @param stops of its steps, without those that somebody put a name under */
export function withStops(gate: GateState, stops: readonly string[]): GateState {
  if (stops.length === 0) return gate;
  const need = { need: 'Nothing before it says stop', met: false, says: stops.join('; ') };
  return { ...gate, needs: [...gate.needs, need], met: false };
}

/** The two gates of one axle, with what each needs: of what it asks, and of nothing that the job leaves alone. */
export function gatesOf(
  mesh: MeshAxle,
  preload: PreloadAxle,
  signed: ReadonlyMap<string, Signature>,
  asks: GateAsks = ASKS_ALL,
  evidence: GateEvidence = NOTHING,
): Readonly<Record<GateName, GateState>> {
  const { axle, now, band, bandWeak } = mesh;
  const read = now && backlashOf(now);
  const seen = now && patternOf(now);
  // A reading is judged in the state that it was taken in, whatever the axle is in since.
  const up = read ? shiftTo(read.state, mesh).mm : 0;
  const figures: Record<string, number> = {};
  if (now) {
    figures['assembly'] = now.number;
    figures[meshFigures.shim(axle)] = now.pinionMm;
    figures[meshFigures.ring(axle)] = now.ringMm;
  }
  if (read) {
    figures[meshFigures.mean(axle)] = read.round.meanMm;
    figures[meshFigures.least(axle)] = read.round.minMm;
    figures[meshFigures.most(axle)] = read.round.maxMm;
  }
  if (preload.last) figures[preloadFigures.pinion(axle)] = preload.last.nm;
  const askedA = new Set(asks.A);
  const askedB = new Set(asks.B);
  const nothingWaits = asks.A.length === 0;
  const bands: GateNeed[] = [
    {
      need: 'Backlash band from a sheet',
      met: band !== null && !bandWeak,
      says: band === null ? 'nobody has said one' : bandWeak ? 'out of memory, borrowed or guessed' : 'confirmed',
    },
    {
      need: 'Turning-torque band from a sheet',
      met: preload.band !== null && !preload.band.weak,
      says:
        preload.band === null
          ? 'nobody has said one'
          : preload.band.weak
            ? 'out of memory, borrowed or guessed'
            : 'confirmed',
    },
  ];
  const [backlashBand, torqueBand] = bands as [GateNeed, GateNeed];
  const a: GateNeed[] = nothingWaits
    ? []
    : [
        backlashBand,
        ...(askedB.has('pinion-preload') ? [torqueBand] : []),
        {
          need: 'Put together, caps torqued, read under side preload',
          met:
            now !== null &&
            (now.number > 0 || mesh.setup.gears === 'used') &&
            read !== null &&
            read.state.sidePreload !== 'none' &&
            read.state.caps === 'torqued',
          says: !now
            ? 'not put together yet'
            : !read
              ? 'backlash not read'
              : `caps ${read.state.caps}, side preload ${read.state.sidePreload}`,
        },
        {
          need: 'Backlash in band all round, closing up counted',
          met: read !== null && band !== null && allRound(read) && inBand(read, [band[0] + up, band[1] + up]),
          says: !read ? 'not read' : `${read.mm.length} places`,
        },
        ...(askedA.has('pattern')
          ? [
              {
                need: 'Pattern right on both flanks, under the brake',
                met: seen !== null && patternFits(seen, mesh.loadedFlank),
                says: !seen ? 'not painted' : seen.counts ? 'read' : 'faint, unclear or under light drag',
              },
            ]
          : []),
        ...(askedA.has('depth')
          ? [
              {
                need: 'Depth measured',
                met: mesh.setup.depth.headReading !== null,
                says:
                  mesh.setup.depth.headReading === null ? 'not measured' : 'by gauge; the pattern is asked at Gate B',
              },
            ]
          : []),
      ];
  const keyA = gateKey(axle, 'A');
  const signatureA = signed.get(keyA) ?? null;
  // Where nothing waits for it there is no such gate, and nobody is held up.
  const openA = nothingWaits || stands(signatureA, figures, [meshFigures.shim(axle)]);
  // What is called final signs only if its state says so too.
  const closed = <R extends BacklashRead | PatternRead>(one: R | null | undefined): R | null =>
    one && isFinal(one.state, mesh.setup.gears, mesh.construction) ? one : null;
  const [finalRead, finalSeen] = [closed(now?.backlash.final), closed(now?.pattern.final)];
  const verdict = preloadVerdict(mesh, preload);
  const final = preload.last !== null && (preload.last.state.pinionBearings === 'new' || mesh.setup.gears === 'used');
  const b: GateNeed[] = [
    ...(nothingWaits
      ? []
      : [
          {
            need: 'Gate A signed',
            met: openA,
            says: openA ? `by ${signatureA?.name ?? ''}` : signatureA ? 'for another pinion shim' : 'not yet',
          },
        ]),
    ...(askedB.has('pinion-preload')
      ? [
          {
            need: 'Pinion preload in band on the bearings that run',
            met: verdict === 'in-band' && final && mesh.setup.gauges.turning !== null && !preload.sealUnknown,
            says: !preload.last
              ? 'not read'
              : !final
                ? 'read on set-up bearings'
                : preload.sealUnknown
                  ? 'seal drag is in it'
                  : mesh.setup.gauges.turning === null
                    ? 'nobody has said what the wrench is good to'
                    : verdict === null
                      ? 'no band'
                      : verdict.replace('-', ' '),
          },
        ]
      : []),
    ...(askedB.has('drag-compared')
      ? [
          {
            need: 'Drag of the pinion that stays, carrier out',
            ...dragNeed(evidence.dragNm, mesh),
          },
        ]
      : []),
    ...(askedB.has('repeats-before')
      ? [repeats(mesh, finalRead, finalSeen)]
      : !askedB.has('backlash')
        ? []
        : [
            {
              need: 'Final backlash in band all round',
              met: finalRead !== null && band !== null && allRound(finalRead) && inBand(finalRead, band),
              says: finalRead ? `${finalRead.mm.length} places` : 'not read in the final state',
            },
          ]),
    ...(askedB.has('pattern')
      ? [
          {
            need: 'Final pattern right on both flanks',
            met: finalSeen !== null && patternFits(finalSeen, mesh.loadedFlank),
            says: finalSeen ? 'read' : 'not painted in the final state',
          },
        ]
      : []),
    ...(askedB.has('side-preload')
      ? [
          {
            need: 'Side preload for good',
            met: finalRead?.state.sidePreload === 'full' && !preload.side.some(({ verdict }) => verdict === 'stop'),
            says: !finalRead
              ? 'not read in the final state'
              : preload.side.some(({ verdict }) => verdict === 'stop')
                ? 'out of the band of its method'
                : `side preload ${finalRead.state.sidePreload}`,
          },
        ]
      : []),
    // Not every job reads it; where it was read it has to be what the sheet says.
    ...(preload.totalNm !== null && mesh.sheet.totalTorque !== null
      ? [totalNeed(preload.totalNm, mesh.sheet.totalTorque)]
      : []),
    ...(askedB.has('ring-bolts')
      ? [
          {
            need: 'Ring bolts: every round ticked',
            met: evidence.ringBolts,
            says: evidence.ringBolts ? 'every round' : 'not all on Ring joint',
          },
        ]
      : []),
    ...(askedB.has('float')
      ? [
          {
            need: 'Float of the box’s input, read again',
            met: evidence.floatRead,
            says: evidence.floatRead ? 'read' : 'not read',
          },
        ]
      : []),
    ...(askedB.has('leak')
      ? [
          {
            need: 'Locker held under pressure',
            met: evidence.leak === 'holds',
            says: evidence.leak ?? 'not tested',
          },
        ]
      : []),
  ];
  const keyB = gateKey(axle, 'B');
  const signatureB = signed.get(keyB) ?? null;
  const gate = (
    name: GateName,
    key: string,
    about: string,
    needs: GateNeed[],
    signature: Signature | null,
    open: boolean,
  ): GateState => ({
    gate: name,
    key,
    about,
    needs,
    met: needs.every(({ met }) => met),
    signature,
    open,
    figures,
  });
  return {
    A: gate('A', keyA, 'Before a final bearing is pressed or a spacer is crushed.', a, signatureA, openA),
    B: gate(
      'B',
      keyB,
      'Before the cover goes on.',
      b,
      signatureB,
      openA && stands(signatureB, figures, ['assembly', meshFigures.shim(axle)]),
    ),
  };
}

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
