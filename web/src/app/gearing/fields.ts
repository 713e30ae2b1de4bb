import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['gearing', 'speed', 'Ring teeth', 'final-{axle}-ring'],
  ['gearing', 'speed', 'Pinion teeth', 'final-{axle}-pinion'],
  ['gearing', 'speed', 'Hub', 'hub-{axle}'],
  ['gearing', 'speed', 'Drag to try a ratio', 'final-slider'],
  ['gearing', 'speed', 'Compare with', 'new-candidate'],
  ['gearing', 'speed', 'Tyre', 'tyre-{axle}'],
  ['gearing', 'speed', 'Rolls by', 'rolling-{axle}'],
  ['gearing', 'speed', 'Cruise', 'cruise-speed'],
  ['gearing', 'ladder', 'Road speeds, with commas', 'ladder-speeds'],
  ['gearing', 'ladder', 'Final drive', 'ladder-final'],
  ['gearing', 'match', 'Driven wheels slip', 'wheel-slip'],
  ['gearing', 'match', 'Converter slips', 'match-converter'],
  ['gearing', 'match', 'Tread worn off', 'tyre-wear'],
  ['gearing', 'match', 'Tyre grows by', 'growth-share'],
  ['gearing', 'heat', 'Slope', 'climb-grade'],
  ['gearing', 'heat', 'Steady speed', 'climb-speed'],
  ['gearing', 'heat', 'Carried or towed', 'climb-load'],
  ['gearing', 'heat', 'In gear', 'climb-gear'],
  ['gearing', 'noise', 'Heard at', 'noise-speed'],
  ['gearing', 'noise', 'Rollers of the bearing', 'noise-rollers'],
  ['gearing', 'noise', 'Roller Ø ÷ pitch Ø', 'noise-ratio'],
  ['gearing', 'noise', 'Contact angle', 'noise-angle'],
  ['gearing', 'speed', 'One turn', 'tyre-{axle}-measured'],
];
