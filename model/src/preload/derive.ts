import { originOf } from '../library/origins';
import { entryBase } from '@hot-spline/core';
import type { Derivation } from '../frame/derivation';
import { fact, type Place } from '../frame/finding';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { explainCollapsible, explainTotal } from '../mesh/explain';
import { preloadFigures } from './ids';
import { isTrial, type PreloadAxle } from './state';
import * as words from './words';
import { bearingsOf } from '../mesh/stayed';
import type { MeshAxle } from '../mesh/axle';

const STATION = 'final' as const;

/** How the last reading stands to its band. */
export function preloadVerdict({ setup }: MeshAxle, { band, last, next, wrenchNm }: PreloadAxle) {
  if (!band || !last) return null;
  const trial = isTrial(last, setup);
  if (setup.spacer === 'collapsible' && next && !(trial && next.verdict === 'over')) return next.verdict;
  if (2 * wrenchNm >= band.nm[1] - band.nm[0] - 1e-9) return 'cannot-judge' as const;
  // Without a spacer nothing was crushed too far: the nut goes back.
  if (last.nm > band.nm[1]) return trial ? null : ('over' as const);
  return last.nm < band.nm[0] ? ('go-on' as const) : ('in-band' as const);
}

type Part = (mesh: MeshAxle, state: PreloadAxle, d: Derivation) => void;
const torque = { quantity: 'torque', scale: 'turning', rests: 'measured' } as const;
const placeOf =
  (axle: MeshAxle['axle']) =>
  (field: string): Place => ({ sheet: 'preload', axle, field: `${field}-${axle}` });

/** What the readings are held against, and how far that can be leaned on. */
const bandSaid: Part = (mesh, state, d) => {
  const { axle, setup } = mesh;
  const { band } = state;
  if (!band)
    d.finding({
      id: `preload.${axle}.band`,
      verdict: 'not-yet',
      place: { sheet: 'baseline', tab: 'sheet', axle, field: `sheet-pinionTorqueNew-${axle}` },
      station: STATION,
      figures: [],
      rule: 'a band from the maker’s sheet',
      facts: {},
      say: words.noBand,
    });
  else if (band.weak)
    d.finding({
      id: `preload.${axle}.band`,
      verdict: 'watch',
      place: { sheet: 'baseline', tab: 'sheet', axle, field: `sheet-pinionTorqueNew-${axle}` },
      station: STATION,
      figures: [],
      rule: 'a band out of memory stops a step that can’t be taken back (common practice)',
      facts: {
        low: fact(band.nm[0], 'torque', 'turning'),
        high: fact(band.nm[1], 'torque', 'turning'),
        origin: setup.preloadAim === 'heavy' ? 'heavy on purpose: ours' : 'not read from a sheet',
      },
      say: words.weak,
    });
};

/** What was read last, and how far the nut may be turned. */
const pinionRead: Part = (mesh, state, d) => {
  const { axle } = mesh;
  const { last, next, spacer } = state;
  const place = placeOf(axle);
  if (!last) {
    d.finding({
      id: `preload.${axle}.pinion`,
      verdict: 'not-yet',
      place: place('pinion-torque'),
      station: STATION,
      figures: [],
      rule: 'pinion preload is read before the carrier goes in (common practice)',
      facts: {},
      say: words.notRead,
    });
  } else {
    d.figure({ id: preloadFigures.pinion(axle), label: 'Pinion turning torque', value: last.nm, ...torque });
    d.figure({
      id: preloadFigures.spacers(axle),
      label: 'Spacer number',
      value: spacer,
      quantity: 'count',
      rests: 'measured',
    });
    if (typeof next?.nextAngleDeg === 'number')
      d.figure({
        id: preloadFigures.turnTo(axle),
        label: 'Turn the nut to at most',
        value: next.nextAngleDeg,
        quantity: 'angle',
        decimals: 0,
        rests: 'measured',
        explain: () =>
          explainCollapsible(
            state.reads.flatMap(({ angleDeg, nm, counts }) =>
              counts && angleDeg !== null ? [{ angleDeg, torqueNm: nm }] : [],
            ),
            next,
          ),
      });
  }
};

/** How the last reading stands to its band. */
const pinionJudged: Part = (mesh, state, d) => {
  const { axle, setup } = mesh;
  const { band, last, next, spacer } = state;
  const place = placeOf(axle);
  const verdict = preloadVerdict(mesh, state);
  if (band && last && verdict)
    d.finding({
      id: `preload.${axle}.pinion`,
      // In band with seal drag in it, or by a wrench that nobody has said anything of, is not known to fit.
      verdict:
        verdict === 'in-band'
          ? state.sealUnknown || !setup.gauges.turning
            ? 'watch'
            : 'fits'
          : verdict === 'over'
            ? 'stop'
            : 'watch',
      place: place('pinion-torque'),
      station: STATION,
      figures: [preloadFigures.pinion(axle)],
      rests: band.rests,
      rule: 'turning torque of the bearings, oiled, turning steadily, in the band of the sheet (common practice); the steps of a spacer together risk one in fifty at most: ours',
      facts: {
        nm: fact(last.nm, 'torque', 'turning'),
        low: fact(band.aimNm[0], 'torque', 'turning'),
        high: fact(band.aimNm[1], 'torque', 'turning'),
        spacer: fact(spacer, 'count'),
        verdict,
        kind: setup.spacer,
        ...(typeof next?.nextAngleDeg === 'number' && next.chanceOver !== null
          ? {
              turnTo: fact(next.nextAngleDeg, 'angle'),
              chance: fact(next.chanceOver, 'ratio'),
              readings: fact(next.readingsExpected ?? 1, 'count'),
            }
          : {}),
      },
      say: words.pinion,
    });
};

/** What makes a reading no reading: a seal that drags more than all of it, no oil, a seal that nobody read. */
const doubts: Part = (mesh, state, d) => {
  const { axle } = mesh;
  const place = placeOf(axle);
  const latest = state.reads.at(-1);
  if (latest && latest.nm < 0)
    d.finding({
      id: `preload.${axle}.less`,
      verdict: 'stop',
      place: place('seal-drag'),
      station: STATION,
      figures: [],
      rule: 'bearings = reading − seal [exact]',
      facts: {},
      say: words.lessThanSeal,
    });
  if (latest?.state.oil === 'dry')
    d.finding({
      id: `preload.${axle}.dry`,
      verdict: 'watch',
      place: { sheet: 'preload', axle, field: `state-oil-${axle}` },
      station: STATION,
      figures: [],
      rule: 'oiled or it does not count (common practice)',
      facts: {},
      say: words.dry,
    });
  if (state.sealUnknown)
    d.finding({
      id: `preload.${axle}.seal`,
      verdict: 'watch',
      place: place('seal-drag'),
      station: STATION,
      figures: [],
      rule: 'bearings = reading − seal [exact]',
      facts: {},
      say: words.sealIn,
    });
};

/** The bearings of the carrier, from the total. */
const carrierBearings: Part = (mesh, state, d) => {
  const { axle } = mesh;
  const { carrier } = state;
  const place = placeOf(axle);
  if (carrier && carrier.nm !== null)
    d.figure({
      id: preloadFigures.carrier(axle),
      label: 'Carrier bearings',
      value: carrier.nm,
      ...torque,
      explain: () => explainTotal({ ...carrier, ratio: mesh.ring / mesh.pinion }),
    });
  if (carrier)
    d.finding({
      id: `preload.${axle}.carrier`,
      verdict: carrier.nm === null ? 'not-yet' : carrier.plusMinusNm > carrier.nm / 2 ? 'watch' : 'fits',
      place: place(carrier.why === 'seal' ? 'seal-drag' : 'total-torque'),
      station: STATION,
      figures: carrier.nm === null ? [] : [preloadFigures.carrier(axle)],
      rule: 'T carrier = (T total − T pinion) × ratio, seal alike in both [exact]; ± is the ratio × √(u_t² + u_p²); coarser than half of it: ours',
      facts: {
        why: carrier.why,
        ...(carrier.nm === null ? {} : { nm: fact(carrier.nm, 'torque', 'turning') }),
        plusMinus: fact(carrier.plusMinusNm, 'torque', 'turning'),
        coarse: carrier.nm !== null && carrier.plusMinusNm > carrier.nm / 2,
      },
      say: words.carrier,
    });
};

/** Side preload by each method that was read. */
const sidePreload: Part = (mesh, state, d) => {
  const { axle } = mesh;
  for (const { method, verdict, value, said, band, quantity, scale, rests } of state.side)
    if (verdict !== 'not-yet')
      d.finding({
        id: `preload.${axle}.side-${method}`,
        verdict,
        place: { sheet: 'preload', tab: 'side', axle, field: `side-${method}-${axle}` },
        rests,
        station: STATION,
        figures: [],
        rule:
          method === 'shims'
            ? 'shims of both sides less those at zero play, within 0.02 mm of the sheet: the 0.02 is ours'
            : method === 'feel'
              ? 'a hand is no instrument: a school, recorded as such'
              : 'in the band of the sheet, each method against its own',
        facts: {
          method,
          said: said ?? '',
          verdict,
          ...(value === null ? {} : { value: fact(value, quantity, scale) }),
          ...(band === null ? {} : { low: fact(band[0], quantity, scale), high: fact(band[1], quantity, scale) }),
        },
        say: words.side,
      });
};

/** All of it against the band of the sheet. */
const total: Part = (mesh, state, d) => {
  const { axle, sheet } = mesh;
  const { totalNm } = state;
  const place = placeOf(axle);
  if (totalNm !== null && sheet.totalTorque) {
    const [low, high] = [entryBase(sheet.totalTorque.value.low), entryBase(sheet.totalTorque.value.high)];
    const fits = totalNm >= low - 1e-9 && totalNm <= high + 1e-9;
    d.finding({
      id: `preload.${axle}.total`,
      verdict: fits ? 'fits' : 'watch',
      place: place('total-torque'),
      station: STATION,
      figures: [],
      rests: ORIGIN_RESTS[originOf(sheet.totalTorque)],
      rule: 'total turning torque in the band of the sheet',
      facts: {
        total: fact(totalNm, 'torque', 'turning'),
        low: fact(low, 'torque', 'turning'),
        high: fact(high, 'torque', 'turning'),
        fits,
      },
      say: words.total,
    });
  }
};

/** Ours: from so many axles alike on, what the shop saw stay is more than one axle's luck. */
const ENOUGH_AXLES = 3;
/** Ours: so much less than any axle alike kept is more than a wrench's own spread. */
const BELOW_LEAST = 0.05;
/** Ours: where less is left, bearings were too tight, or have gone. */
const LEAST_STAYS = 0.5;

/** What the run-in left of the turning torque, or what axles like this one kept of it. */
const bedding: Part = (mesh, state, d) => {
  const { axle, stayed, past } = mesh;
  const bearings = stayed?.bearings ?? bearingsOf(mesh.setup.state);
  const shares = past
    .flatMap((one) => (one.stayed?.bearings === bearings ? [one.stayed.share] : []))
    .sort((a, b) => a - b);
  const [least, most] = [shares[0], shares.at(-1)];
  const seen = shares.length >= ENOUGH_AXLES && least !== undefined && most !== undefined ? { least, most } : null;
  if (stayed)
    d.figure({
      id: preloadFigures.stayed(axle),
      label: 'Left of it after the run-in',
      value: 100 * stayed.share,
      quantity: 'percent',
      decimals: 0,
      rests: 'measured',
    });
  if (!stayed && (!seen || state.totalNm === null)) return;
  const floor = seen ? seen.least - BELOW_LEAST : LEAST_STAYS;
  d.finding({
    id: `preload.${axle}.stayed`,
    verdict: stayed && stayed.share < floor - 1e-9 ? 'watch' : 'fits',
    place: { sheet: 'close', tab: 'run-in', axle, field: `total-after-${axle}` },
    station: STATION,
    figures: stayed ? [preloadFigures.stayed(axle)] : [],
    rule: 'preload falls as bearings bed in (common practice); below half of it watch, or 5 % below the least that three axles alike kept: guards of ours',
    facts: {
      read: stayed !== null,
      share: fact(100 * (stayed?.share ?? 0), 'percent'),
      from: fact(stayed?.fromNm ?? 0, 'torque', 'turning'),
      now: fact(stayed?.nowNm ?? 0, 'torque', 'turning'),
      sealOff: stayed?.sealOff ?? false,
      jobs: fact(seen ? shares.length : 0, 'count'),
      least: fact(100 * (seen?.least ?? 0), 'percent'),
      most: fact(100 * (seen?.most ?? 0), 'percent'),
      bearings,
    },
    say: words.stayed,
  });
};

/** Figures and findings of the preload of one axle. */
export function derivePreload(mesh: MeshAxle, state: PreloadAxle, d: Derivation): void {
  for (const part of [bandSaid, pinionRead, pinionJudged, doubts, carrierBearings, sidePreload, total, bedding])
    part(mesh, state, d);
}
