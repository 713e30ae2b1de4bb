export { DRAWN_RING_MM, sectionOfAxle } from './of-axle';
export { looksOf, type Look, type Looks } from './looks';
export { PART_NAMES } from './names';
export { OUTSIDE_OF_IT, isInSection, partsOfPiece } from './pieces';
export { STEP_MM, effectOn, effectWords, touchesOf, type Touchable } from './touches';
