import { UNIT_TYPE_WORDS } from '@hot-spline/model';
import type { PaperLines } from '../shared/paper';

const LOCKS = ['selectable-locker', 'automatic-locker', 'spool'];

export const paper: PaperLines = {
  explains: [/^unit\.\w+\.drive\.lock$/],
  done({ build, derived }, name) {
    const unit = build.axles[name]?.unit;
    if (!unit) return [];
    const fact = derived.work[name]?.facts.unit;
    const how = fact?.startsWith('new') ? ', new' : fact === 'own-overhauled' ? ', overhauled' : '';
    return [`In it: ${UNIT_TYPE_WORDS[unit.type].name}${how}.`];
  },
  todo({ build }, name) {
    const type = build.axles[name]?.unit.type;
    return [
      ...(type === 'plate' ? ['Slow figures of eight first: they wet the plates.'] : []),
      ...(type !== undefined && LOCKS.includes(type)
        ? ['Never raise one wheel with the engine in gear: it drives off its stands.']
        : []),
    ];
  },
  label({ build }, name) {
    const unit = build.axles[name]?.unit;
    return unit ? { what: UNIT_TYPE_WORDS[unit.type].name } : {};
  },
};
