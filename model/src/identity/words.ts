import { say, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

export function match(f: { axle: string; ring: string; pinion: string; agree: boolean }): Words {
  const where = capital(f.axle);
  if (f.ring === '' || f.pinion === '')
    return {
      title: `${where} match number half read`,
      detail: `Only the ${f.ring === '' ? 'pinion' : 'ring'} is noted: read the other one too.`,
    };
  return f.agree
    ? { title: `${where} ring and pinion match`, detail: `Both carry ${f.ring}.` }
    : {
        title: `${where} ring and pinion don’t match`,
        detail: `Ring ${f.ring}, pinion ${f.pinion}: not one lapped set. Don’t fit them together.`,
      };
}

export const open = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)} axle not identified yet`,
  detail: 'Take it from the library or describe it: construction, ring bolts, carrier, sets.',
});

export const leftHand = (f: { axle: string; count: NumberFact; thread: string }): Words => ({
  title: `${capital(f.axle)} ring bolts are left-hand`,
  detail: `${f.count.value} × ${f.thread}: clockwise undoes them.`,
});

export const unknownSet = (f: { teeth: string; spec: string; known: string }): Words => ({
  title: `No ${f.teeth} is known for this axle`,
  detail: `${f.spec} has ${f.known}. Count the teeth again, or add the set.`,
});

export const pastLimit = (f: { teeth: string; reached: NumberFact; limit: NumberFact }, system: UnitSystem): Words => ({
  title: `${f.teeth} is past its torque limit`,
  detail: `Up to ${say(f.reached.value, 'torque', system, 0)} at the ring gear in the lowest gear, as far as the tyres hold; it stands ${say(f.limit.value, 'torque', system, 0)}.`,
});

export function carrier(f: {
  axle: string;
  fits: boolean;
  final: NumberFact;
  present: string;
  presentTakes: string;
  takes: string;
  known: string;
}): Words {
  const where = capital(f.axle);
  const ratio = f.final.value.toFixed(3);
  if (f.takes === '') return { title: `${where}: no carrier takes ${ratio}`, detail: `Known: ${f.known}.` };
  if (f.present === '')
    return {
      title: `${where} carrier not identified yet`,
      detail: `${ratio} wants ${f.takes}. Measure bearing seat to flange face.`,
    };
  return f.fits
    ? { title: `${where} carrier takes ${ratio}`, detail: `${f.present}: ${f.presentTakes}.` }
    : {
        title: `${where} carrier, ${f.present}, does not take ${ratio}`,
        detail: `${ratio} wants ${f.takes}, a thick ring gear or a spacer. Measure bearing seat to flange face first: a carrier has been bought that was not needed.`,
      };
}

export const closed = (f: {
  axle: string;
  ratio: NumberFact;
  error: NumberFact;
  own: string;
  pairs: string;
  more: NumberFact;
  agrees: boolean;
  comesOut: boolean;
}): Words => {
  const found = `${f.ratio.value.toFixed(2)} ± ${f.error.value.toFixed(2)}`;
  const pairs =
    f.pairs === ''
      ? 'No usual tooth pair lies in it: turn it once more.'
      : `In it: ${f.pairs}${f.more.value > 0 ? ` and ${f.more.value} more` : ''}.`;
  if (f.comesOut)
    return { title: `${capital(f.axle)}: what is in it turns ${found}`, detail: `${pairs} ${f.own} is to go in.` };
  return f.agrees
    ? { title: `${capital(f.axle)}: turns agree with ${f.own}`, detail: `${found}. ${pairs}` }
    : {
        title: `${capital(f.axle)}: by its turns it is not ${f.own}`,
        detail: `${found}. ${pairs} The spec of the axle, or the set of the build, is another one.`,
      };
};
