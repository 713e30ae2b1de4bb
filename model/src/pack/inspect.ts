import { entryBase } from '@hot-spline/core';
import { SIDES, type AxleName, type Side } from '../base/names';
import type { Condition, Member, PlateSpec } from './schema';
import type { Derivation } from '../frame/derivation';
import { fact, type Verdict } from '../frame/finding';
import * as words from './words';
import type { MemberState, PackState } from './state';

/** Damage with which a piece does not go back in; the rest is watched. A guard of ours. */
const SCRAP: readonly Condition['damage'][number][] = ['bent ears', 'cracked', 'warped', 'lining gone'];
/** Used share of the wear limit from which a plate is watched: a guard of ours. */
const WATCHED_SHARE = 0.7;

export interface InspectedPiece {
  readonly side: Side;
  /** Outwards from the side gear, from 1. */
  readonly place: number;
  readonly member: Member;
  readonly newMm: number;
  /** Null while it was not measured. */
  readonly wornMm: number | null;
  /** Worn over what may wear off; null where either is not known. */
  readonly usedShare: number | null;
  readonly verdict: Verdict;
  /** What speaks against it. */
  readonly against: readonly string[];
}

/** What was seen on a piece, judged. @returns `not-yet` while nobody has looked */
export function conditionVerdict(condition: Condition | null): { verdict: Verdict; against: string[] } {
  if (!condition || (condition.colour === null && condition.damage.length === 0))
    return { verdict: 'not-yet', against: [] };
  const against: string[] = [...condition.damage];
  if (condition.colour === 'blue') against.unshift('run hot: blue');
  if (condition.colour === 'black') against.unshift('burnt: black');
  const scrap = condition.colour === 'black' || condition.damage.some((one) => SCRAP.includes(one));
  return { verdict: scrap ? 'stop' : against.length > 0 ? 'watch' : 'fits', against };
}

function pieceWear(
  plate: PlateSpec,
  side: Side,
  { member, thicknessMm, reading, lined }: MemberState,
  i: number,
): InspectedPiece {
  const newMm = entryBase(member.thickness);
  const wornMm = reading ? newMm - thicknessMm : null;
  const limit = plate.wearLimit && lined ? entryBase(plate.wearLimit) : null;
  const usedShare = wornMm === null || limit === null ? null : Math.max(0, wornMm) / limit;
  const seen = conditionVerdict(member.condition);
  const worn: Verdict =
    usedShare === null ? 'not-yet' : usedShare >= 1 ? 'stop' : usedShare > WATCHED_SHARE ? 'watch' : 'fits';
  const verdict = (['stop', 'watch', 'fits'] as const).find((one) => one === worn || one === seen.verdict) ?? 'not-yet';
  const against =
    usedShare !== null && usedShare > WATCHED_SHARE
      ? [`${Math.round(100 * usedShare)} % of the wear limit used`, ...seen.against]
      : seen.against;
  return { side, place: i + 1, member, newMm, wornMm, usedShare, verdict, against };
}

/** Every piece of both packs: worn against new, what was seen on it, and whether it goes back in. */
export function inspectPack(plate: PlateSpec, packs: PackState): InspectedPiece[] {
  return SIDES.flatMap((side) => packs[side].members.map((state, i) => pieceWear(plate, side, state, i)));
}

export interface OverhaulAdvice {
  readonly choice: 'not-inspected' | 'run-on' | 'overhaul' | 'replace' | 'ask';
  /** The strongest first. */
  readonly reasons: readonly string[];
}

const days = (n: number): string => (n === 1 ? '1 day' : `${n} days`);

/** The faces at the ends of the packs that plates run on. */
const FACES = [
  { key: 'gearFace', label: 'side gear’s back face' },
  { key: 'caseWall', label: 'case wall' },
] as const;

/**
 * Whether the unit runs on, is overhauled or replaced: on wear and damage, then on whether parts are there in time, then on
 * price. A kit weeks away can lose to a complete unit on the shelf (common practice, no published source); the order of the
 * grounds is ours.
 */
export function overhaulAdvice(plate: PlateSpec, pieces: readonly InspectedPiece[]): OverhaulAdvice {
  const scrap = pieces.filter(({ verdict }) => verdict === 'stop');
  const faces = SIDES.filter((side) =>
    FACES.some(({ key }) => conditionVerdict(plate.packs[side][key].condition).verdict === 'stop'),
  );
  const looked =
    pieces.some(({ wornMm, member }) => wornMm !== null || member.condition !== null) ||
    SIDES.some((side) => FACES.some(({ key }) => plate.packs[side][key].condition !== null));
  if (!looked)
    return { choice: 'not-inspected', reasons: ['Measure or look at a piece: until then nothing speaks for it.'] };
  if (scrap.length === 0 && faces.length === 0) {
    const used = Math.max(...pieces.map(({ usedShare }) => usedShare ?? Number.NEGATIVE_INFINITY));
    return {
      choice: 'run-on',
      reasons: [
        Number.isFinite(used)
          ? `The most worn plate has ${Math.max(0, Math.round(100 * (1 - used)))} % of its wear left.`
          : 'Nothing that was looked at has to come out.',
      ],
    };
  }
  const { overhaul, replace } = plate.offers;
  const why = [
    ...(scrap.length > 0
      ? [`${scrap.length === 1 ? '1 piece does' : `${scrap.length} pieces do`} not go back in.`]
      : []),
    ...(faces.length > 0
      ? [`The ${faces.join(' and ')} face that the plates run on is damaged: a kit alone doesn’t cure that.`]
      : []),
  ];
  const options = [
    ...(overhaul && faces.length === 0 ? [{ choice: 'overhaul' as const, ...overhaul }] : []),
    ...(replace ? [{ choice: 'replace' as const, ...replace }] : []),
  ];
  const needed = plate.neededInDays ?? Number.POSITIVE_INFINITY;
  const late = (leadDays: number): boolean => leadDays > needed;
  const [best, other] = [...options].sort(
    (a, b) =>
      Number(late(a.leadDays)) - Number(late(b.leadDays)) ||
      (late(a.leadDays) ? a.leadDays - b.leadDays : 0) ||
      a.price - b.price ||
      a.leadDays - b.leadDays,
  );
  if (!best)
    return { choice: 'ask', reasons: [...why, 'Ask for price and lead time of a kit and of a complete unit.'] };
  const name = (choice: 'overhaul' | 'replace'): string => (choice === 'overhaul' ? 'overhaul kit' : 'complete unit');
  const timing = late(best.leadDays)
    ? `There are ${days(needed)}, and ${other ? 'neither is here by then; the first is' : 'it takes longer:'} the ${name(best.choice)}, in ${days(best.leadDays)}.`
    : `The ${name(best.choice)} is ${best.leadDays === 0 ? 'on the shelf' : `here in ${days(best.leadDays)}`}${Number.isFinite(needed) ? `, and there are ${days(needed)}` : ''}.`;
  const against = !other
    ? []
    : late(other.leadDays) && !late(best.leadDays)
      ? [`The ${name(other.choice)} takes ${days(other.leadDays)}: too late, whatever it costs.`]
      : [
          `The ${name(other.choice)} costs ${Math.abs(other.price - best.price)} ${other.price >= best.price ? 'more' : 'less'} and ${other.leadDays === 0 ? 'is on the shelf' : `takes ${days(other.leadDays)}`}.`,
        ];
  return { choice: best.choice, reasons: [...why, timing, ...against] };
}

/** Findings of wear, of what was seen, and of the day on which it is looked at again. */
export function findInspected(
  plate: PlateSpec,
  axle: AxleName,
  packs: PackState,
  today: string | null,
  d: Derivation,
): void {
  const at = (field: string) => ({ sheet: 'pack', tab: 'inspect', axle, field });
  const seen = [
    ...inspectPack(plate, packs).map(({ side, place, member, newMm, wornMm, verdict, against }) => ({
      side,
      at: member.id,
      name: `${place} ${member.label}`,
      newMm,
      wornMm,
      verdict,
      against,
    })),
    ...SIDES.flatMap((side) =>
      FACES.map(({ key, label }) => ({
        side,
        at: key,
        name: label,
        newMm: 0,
        wornMm: null,
        ...conditionVerdict(plate.packs[side][key].condition),
      })),
    ),
  ];
  for (const verdict of ['stop', 'watch'] as const) {
    const found = seen.filter((piece) => piece.verdict === verdict);
    const [first] = found;
    if (!first) continue;
    const worn = first.wornMm !== null && first.wornMm > 0 ? first.wornMm : null;
    d.finding({
      id: `pack.inspect.${axle}.${verdict}`,
      verdict,
      place: at(`inspect-${first.side}-${first.at}`),
      station: 'packs',
      figures: [],
      rule: 'the wear limit as entered; heat and damage judged by our guards',
      facts: {
        scrap: verdict === 'stop',
        pieces: fact(found.length, 'count'),
        side: first.side,
        first: first.name,
        against: first.against.join(', '),
        ...(worn === null ? {} : { worn: fact(worn, 'length', 'small'), fresh: fact(first.newMm, 'length') }),
      },
      say: words.inspected,
    });
  }
  const { recheck } = plate;
  if (!recheck || today === null) return;
  const due = today >= recheck.on;
  d.finding({
    id: `pack.recheck.${axle}`,
    verdict: due ? 'watch' : 'fits',
    place: at('recheck-on'),
    station: 'packs',
    figures: [],
    rule: 'the day that was set on the build',
    facts: { due, on: recheck.on, why: recheck.why },
    say: words.recheck,
  });
}
