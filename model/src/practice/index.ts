// The practice bench, apart from the rest: a page loads it only where somebody practises.
export { PRACTICE_LESSONS, boxFloatsOf, floatUnitOf, practiceAxleOf, practiceBuild } from './start';
export { boxFloatScore, floatScore, practiceBacklash, practicePlace, practiceScore, type PracticeScore } from './score';
