// The practice bench, apart from the rest: a page loads it only where somebody practises.
export {
  FAMILIES,
  PRACTICE_CONSTRUCTIONS,
  assemble,
  trueReadings,
  virtualAxle,
  type Family,
  type PracticeConstruction,
  type VirtualAxle,
  type WholeTry,
} from './virtual-axle';
export { FLOAT_LESSON, floatInTruth, floatUnit, trueFloat, type FloatUnit } from './float-unit';
export { BOX_LESSON, boxFloats, boxFloatsInTruth, trueBoxFloat, type BoxFloats } from './box-float';
export { LESSONS, practiceAxle, practiceTorque, type Lesson, type PracticeAxle } from './lessons';
export { byAdvice, inTruth, playAxle, ruleOfThumb, type Player } from './rule-of-thumb';
