import { originOf } from '../library/origins';
import type { Signature } from '../frame/readings';
import { isWeak } from '../library/sheet';
import { floatOf } from '../mesh/float';
import { meshFigures } from '../mesh/ids';
import { gateKey, stands, type GateAsks, type GateName, type GateState } from './gates';
import type { GateEvidence, GateNeed } from './gate-needs';
import type { MeshAxle } from '../mesh/axle';

/** The two gates of a unit whose one shim sets end float: before the case is bolted up, before the rest goes on. */
export function floatGates(
  { axle, now, floatBand: band, sheet }: MeshAxle,
  signed: ReadonlyMap<string, Signature>,
  asks: GateAsks = { A: ['float'], B: ['float'] },
  evidence: Pick<GateEvidence, 'ringBolts'> = { ringBolts: false },
): Readonly<Record<GateName, GateState>> {
  const nothingWaits = asks.A.length === 0;
  const weak = sheet.endFloat !== null && isWeak(originOf(sheet.endFloat));
  const { trial = null, final = null } = now?.endFloatMm ?? {};
  const float = (need: string, mm: number | null): GateNeed => ({
    need,
    met: mm !== null && band !== null && mm >= band[0] - 1e-9 && mm <= band[1] + 1e-9,
    says: mm === null ? 'not read' : 'read',
  });
  const figures: Record<string, number> = {};
  if (now) {
    figures['assembly'] = now.number;
    figures[meshFigures.shim(axle)] = now.leftMm;
    const mm = floatOf(now);
    if (mm !== null) figures[meshFigures.float(axle)] = mm;
  }
  const gate = (name: GateName, about: string, needs: GateNeed[], keys: readonly string[]): GateState => {
    const key = gateKey(axle, name);
    const signature = signed.get(key) ?? null;
    return {
      gate: name,
      key,
      about,
      needs,
      met: needs.every(({ met }) => met),
      signature,
      open: (name === 'A' && nothingWaits) || stands(signature, figures, keys),
      figures,
    };
  };
  const shim = meshFigures.shim(axle);
  const a = gate(
    'A',
    'Before the case is bolted up for good.',
    nothingWaits
      ? []
      : [
          {
            need: 'End-float band from a sheet',
            met: band !== null && !weak,
            says: band === null ? 'nobody has said one' : weak ? 'out of memory, borrowed or guessed' : 'confirmed',
          },
          {
            need: 'Put together with a measured shim',
            met: now !== null && now.number > 0 && now.leftMm > 0,
            says: !now || now.number === 0 ? 'not put together yet' : `assembly ${now.number}`,
          },
          float('End float in band while tried', trial),
        ],
    [shim],
  );
  const b = gate(
    'B',
    'Before inverter and shafts go on.',
    [
      ...(nothingWaits
        ? []
        : [
            {
              need: 'Gate A signed',
              met: a.open,
              says: a.open ? `by ${a.signature?.name ?? ''}` : a.signature ? 'for another shim' : 'not yet',
            },
          ]),
      float('End float in band with the case bolted up', final),
      ...(asks.B.includes('ring-bolts')
        ? [
            {
              need: 'Ring bolts: every round ticked',
              met: evidence.ringBolts,
              says: evidence.ringBolts ? 'every round' : 'not all on Ring joint',
            },
          ]
        : []),
    ],
    ['assembly', shim],
  );
  return { A: a, B: { ...b, open: a.open && b.open } };
}
