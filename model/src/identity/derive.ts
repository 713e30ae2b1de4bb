import { entryBase, mostRingTorque, say } from '@hot-spline/core';
import type { AxleName, Build } from '../document/schema';
import type { Derivation } from '../engine/figure';
import { vehicleOf } from '../road/vehicle';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { lowRange } from '../gearing/match';

/** What the identified axle says about the build: thread hand, match numbers, carrier series, teeth. */
export function deriveIdentity(build: Build, name: AxleName, own: AxleGearingState, d: Derivation): void {
  const axle = build.axles[name];
  if (!axle) return;
  const where = name === 'rear' ? 'Rear' : 'Front';
  const common = { sheet: 'brief' as const, axle: name, figures: [`gearing.${name}.final`] };
  const { identity, matchNumbers } = axle;
  const { ring, pinion } = matchNumbers;
  if (ring !== '' || pinion !== '') {
    const both = ring !== '' && pinion !== '';
    const plain = (mark: string): string => mark.trim().replace(/\s+/g, ' ').toUpperCase();
    const agree = plain(ring) === plain(pinion);
    d.finding({
      ...common,
      id: `identity.match.${name}`,
      verdict: !both ? 'not-yet' : agree ? 'fits' : 'stop',
      anchor: `match-pinion-${name}`,
      rule: 'ring and pinion are lapped as a pair: match numbers agree (common practice)',
      say: () =>
        !both
          ? {
              title: `${where} match number half read`,
              detail: `Only the ${ring === '' ? 'pinion' : 'ring'} is noted: read the other one too.`,
            }
          : agree
            ? { title: `${where} ring and pinion match`, detail: `Both carry ${ring}.` }
            : {
                title: `${where} ring and pinion don’t match`,
                detail: `Ring ${ring}, pinion ${pinion}: not one lapped set. Don’t fit them together.`,
              },
    });
  }
  if (!identity) {
    d.finding({
      ...common,
      id: `identity.open.${name}`,
      verdict: 'not-yet',
      anchor: `axle-spec-${name}`,
      rule: 'identify the axle before parts are chosen (common practice)',
      say: () => ({
        title: `${where} axle not identified yet`,
        detail: 'Take it from the library or describe it: construction, ring bolts, carrier, sets.',
      }),
    });
    return;
  }
  const bolts = identity.ringBolts?.value;
  if (bolts?.hand === 'left') {
    d.finding({
      ...common,
      id: `identity.hand.${name}`,
      verdict: 'watch',
      anchor: `ring-bolts-${name}`,
      rule: 'left-hand ring bolts have been overtightened by many who tried to undo them (common practice)',
      say: () => ({
        title: `${where} ring bolts are left-hand`,
        detail: `${bolts.count} × ${bolts.thread}: clockwise undoes them.`,
      }),
    });
  }
  carrier(axle.carrier, where, common, identity, own, d);
  const { ring: teeth, pinion: pins } = own.finalDrive;
  const set = identity.sets.find((candidate) => candidate.ring === teeth && candidate.pinion === pins);
  if (identity.sets.length > 0 && !set) {
    d.finding({
      ...common,
      id: `identity.set.${name}`,
      verdict: 'watch',
      anchor: `axle-spec-${name}`,
      rule: 'sets known for this axle',
      say: () => ({
        title: `No ${teeth}/${pins} is known for this axle`,
        detail: `${identity.name} has ${identity.sets.map((one) => `${one.ring}/${one.pinion}`).join(', ')}. Count the teeth again, or add the set.`,
      }),
    });
  } else if (set?.torqueLimit) {
    const limit = entryBase(set.torqueLimit);
    const reached = mostRingTorque(vehicleOf(build, name, own), own.finalRatio, lowRange(build).ratio);
    if (reached > limit) {
      d.finding({
        ...common,
        id: `identity.torque.${name}`,
        verdict: 'stop',
        anchor: `axle-spec-${name}`,
        rule: `torque limit of the set (${set.origin === 'maker' ? 'maker’s sheet' : set.origin})`,
        say: (system) => ({
          title: `${teeth}/${pins} is past its torque limit`,
          detail: `Up to ${say(reached, 'torque', system, 0)} at the ring gear in the lowest gear, as far as the tyres hold; it stands ${say(limit, 'torque', system, 0)}.`,
        }),
      });
    }
  }
}

function carrier(
  fitted: string,
  where: string,
  common: { sheet: 'brief'; axle: AxleName; figures: string[] },
  identity: NonNullable<NonNullable<Build['axles']['rear']>['identity']>,
  own: AxleGearingState,
  d: Derivation,
): void {
  const { carriers } = identity;
  if (carriers.length === 0) return;
  const takes = carriers.filter(
    ({ fromRatio, toRatio }) => own.finalRatio >= fromRatio - 1e-9 && own.finalRatio <= toRatio + 1e-9,
  );
  const present = carriers.find(({ name }) => name === fitted);
  const fits = present !== undefined && takes.includes(present);
  d.finding({
    ...common,
    id: `identity.carrier.${common.axle}`,
    verdict: takes.length === 0 || (present && !fits) ? 'stop' : present ? 'fits' : 'not-yet',
    anchor: `carrier-${common.axle}`,
    rule: 'each carrier series takes a range of ratios; check by flange offset when in doubt (common practice)',
    say: () => {
      const ratio = own.finalRatio.toFixed(3);
      if (takes.length === 0)
        return {
          title: `${where}: no carrier takes ${ratio}`,
          detail: `Known: ${carriers.map((c) => `${c.name} ${c.fromRatio}–${c.toRatio}`).join('; ')}.`,
        };
      if (!present)
        return {
          title: `${where} carrier not identified yet`,
          detail: `${ratio} wants ${takes.map(({ name }) => name).join(' or ')}. Measure bearing seat to flange face.`,
        };
      return fits
        ? {
            title: `${where} carrier takes ${ratio}`,
            detail: `${present.name}: ${present.fromRatio} to ${present.toRatio}.`,
          }
        : {
            title: `${where} carrier, ${present.name}, does not take ${ratio}`,
            detail: `${ratio} wants ${takes.map(({ name }) => name).join(' or ')}, a thick ring gear or a spacer. Measure bearing seat to flange face first: a carrier has been bought that was not needed.`,
          };
    },
  });
}
