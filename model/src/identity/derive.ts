import { entryBase } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { Derivation } from '../frame/derivation';
import { weakest } from '../frame/figure';
import { fact } from '../frame/finding';
import { gearingFigures } from '../gearing/ids';
import type { AxleSpec } from '../library/schema';
import { ORIGIN_RESTS } from './origin-rests';
import * as words from './words';
import { ringTorque } from '../road/ring-torque';
import type { AxleGearingState } from '../gearing/axle-gearing';

/** What the identified axle says about the build: thread hand, match numbers, carrier series, teeth. */
export function deriveIdentity(build: Build, name: AxleName, own: AxleGearingState, d: Derivation): void {
  const axle = build.axles[name];
  if (!axle) return;
  matchNumbers(axle.matchNumbers, name, d);
  const { identity } = axle;
  if (!identity) {
    d.finding({
      id: `identity.open.${name}`,
      verdict: 'not-yet',
      place: { sheet: 'brief', tab: 'axle', axle: name, field: `axle-spec-${name}` },
      station: 'final',
      figures: [],
      rule: 'identify the axle before parts are chosen (common practice)',
      facts: { axle: name },
      say: words.open,
    });
    return;
  }
  threadHand(identity, name, d);
  carrier(identity, axle.carrier, name, own, d.using([`axles.${name}.finalDrive`]));
  gearSet(build, identity, name, own, d.using([`axles.${name}.finalDrive`]));
}

function matchNumbers({ ring, pinion }: { ring: string; pinion: string }, axle: AxleName, d: Derivation): void {
  if (ring === '' && pinion === '') return;
  const both = ring !== '' && pinion !== '';
  const plain = (mark: string): string => mark.trim().replace(/\s+/g, ' ').toUpperCase();
  const agree = plain(ring) === plain(pinion);
  d.finding({
    id: `identity.match.${axle}`,
    verdict: !both ? 'not-yet' : agree ? 'fits' : 'stop',
    place: { sheet: 'brief', tab: 'axle', axle, field: `match-pinion-${axle}` },
    station: 'final',
    figures: [],
    rule: 'ring and pinion are lapped as a pair: match numbers agree (common practice)',
    facts: { axle, ring, pinion, agree },
    say: words.match,
  });
}

function threadHand({ ringBolts }: AxleSpec, axle: AxleName, d: Derivation): void {
  if (ringBolts?.value.hand !== 'left') return;
  const bolts = ringBolts.value;
  d.finding({
    id: `identity.hand.${axle}`,
    verdict: 'watch',
    place: { sheet: 'brief', tab: 'axle', axle, field: `ring-bolts-${axle}` },
    station: 'final',
    figures: [],
    rule: 'left-hand ring bolts have been overtightened by many who tried to undo them (common practice)',
    facts: { axle, count: fact(bolts.count, 'count'), thread: bolts.thread },
    rests: ORIGIN_RESTS[ringBolts.origin],
    say: words.leftHand,
  });
}

function gearSet(build: Build, identity: AxleSpec, axle: AxleName, own: AxleGearingState, d: Derivation): void {
  const { ring, pinion } = own.finalDrive;
  const common = {
    place: { sheet: 'brief', tab: 'axle', axle, field: `axle-spec-${axle}` },
    station: 'final',
    figures: [gearingFigures.final(axle)],
  } as const;
  const teeth = `${ring}/${pinion}`;
  const set = identity.sets.find((candidate) => candidate.ring === ring && candidate.pinion === pinion);
  if (identity.sets.length > 0 && !set) {
    d.finding({
      ...common,
      id: `identity.set.${axle}`,
      verdict: 'watch',
      rule: 'sets known for this axle',
      facts: {
        teeth,
        spec: identity.name,
        known: identity.sets.map((one) => `${one.ring}/${one.pinion}`).join(', '),
      },
      // The list of sets as a whole is what the shop knows of this axle.
      rests: 'library',
      say: words.unknownSet,
    });
  } else if (set?.torqueLimit) {
    const limit = entryBase(set.torqueLimit);
    const reached = ringTorque(build, axle, own);
    if (reached <= limit) return;
    d.finding({
      ...common,
      id: `identity.torque.${axle}`,
      uses: ['engine', 'gearbox', 'road', `axles.${axle}.tyre`],
      verdict: 'stop',
      rule: `torque limit of the set (${set.origin === 'maker' ? 'maker’s sheet' : set.origin})`,
      facts: { teeth, reached: fact(reached, 'torque'), limit: fact(limit, 'torque') },
      rests: ORIGIN_RESTS[set.origin],
      say: words.pastLimit,
    });
  }
}

function carrier({ carriers }: AxleSpec, fitted: string, axle: AxleName, own: AxleGearingState, d: Derivation): void {
  if (carriers.length === 0) return;
  const takes = carriers.filter(
    ({ fromRatio, toRatio }) => own.finalRatio >= fromRatio - 1e-9 && own.finalRatio <= toRatio + 1e-9,
  );
  const present = carriers.find(({ name }) => name === fitted);
  const fits = present !== undefined && takes.includes(present);
  const range = (one: AxleSpec['carriers'][number], to: string): string => `${one.fromRatio}${to}${one.toRatio}`;
  d.finding({
    id: `identity.carrier.${axle}`,
    verdict: takes.length === 0 || (present && !fits) ? 'stop' : present ? 'fits' : 'not-yet',
    place: { sheet: 'brief', tab: 'axle', axle, field: `carrier-${axle}` },
    station: 'final',
    figures: [gearingFigures.final(axle)],
    rule: 'each carrier series takes a range of ratios; check by flange offset when in doubt (common practice)',
    facts: {
      axle,
      fits,
      final: fact(own.finalRatio, 'ratio'),
      present: present?.name ?? '',
      presentTakes: present ? range(present, ' to ') : '',
      takes: takes.map(({ name }) => name).join(' or '),
      known: carriers.map((one) => `${one.name} ${range(one, '–')}`).join('; '),
    },
    rests: weakest((present ? [present] : carriers).map(({ origin }) => ORIGIN_RESTS[origin])),
    say: words.carrier,
  });
}
