// The practice bench, apart from the rest: a page loads it only where somebody practises.
export { practiceAxleOf, practiceBuild } from './start';
export { practiceBacklash, practicePlace, practiceScore, type PracticeScore } from './score';
