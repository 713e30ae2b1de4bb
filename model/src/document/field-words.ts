import { capital } from '../base/names';

/** What the screens call the places of a build. */
const WORDS: Readonly<Record<string, string>> = {
  name: 'name',
  vehicle: 'vehicle',
  use: 'use',
  notes: 'notes',
  assumed: 'what is assumed',
  startPoint: 'operating point to start from',
  engine: 'engine',
  torqueCurve: 'torque curve',
  limitRpm: 'limiter',
  launchRpm: 'launch speed',
  coupling: 'clutch or converter',
  capacity: 'torque the clutch holds',
  stallRpm: 'rated stall',
  gearbox: 'gearbox',
  gears: 'gears',
  shiftTime: 'shift time',
  transfer: 'transfer case',
  driven: 'driven axles',
  axles: 'axles',
  finalDrive: 'final drive',
  hubRatio: 'hub reduction',
  tyre: 'tyre',
  designation: 'tyre',
  unit: 'unit',
  identity: 'axle spec',
  matchNumbers: 'match numbers',
  cruiseSpeed: 'cruise speed',
  candidates: 'candidates',
  brief: 'brief',
  goal: 'goal',
  crawlRatio: 'crawl ratio wanted',
  plannedTyre: 'planned tyre',
  road: 'car',
  mass: 'mass',
  rearShare: 'weight on the rear axle',
  cgHeight: 'height of the centre of gravity',
  dragArea: 'drag area',
  shelf: 'shelf',
  course: 'course',
  points: 'kept points',
  members: 'plate order',
  thickness: 'thickness',
  targetHeight: 'target height',
  frictionCoefficient: 'friction',
  driveRamp: 'drive ramp',
  overrunRamp: 'overrun ramp',
  wanted: 'wanted breakaway',
  caseDepth: 'case depth',
  plate: 'plates',
  setup: 'set-up',
  sheet: 'spec sheet',
  ringSide: 'side of the ring',
  state: 'state of the trial',
  stack: 'pinion-shaft stack',
};

/** Steps that say nothing by themselves. */
const SILENT = new Set(['axles', 'packs', 'plate', 'unit', 'members']);
const spaced = (key: string): string => key.replace(/([A-Z])/g, ' $1').toLowerCase();

/** A place of the build as the screens call it: `Rear axle: tyre`, `Limiter`. */
export function fieldWords(path: readonly string[]): string {
  const axle = path.find((step) => step === 'rear' || step === 'front');
  const side = path.find((step) => step === 'left' || step === 'right');
  const piece = path.find((step) => step.startsWith('#'));
  const last = path.findLast((step) => !step.startsWith('#') && step !== axle && step !== side) ?? '';
  const parent = path[path.lastIndexOf(last) - 1] ?? '';
  const own = WORDS[last] ?? spaced(last);
  const whose = parent !== '' && WORDS[parent] && !SILENT.has(parent) && !WORDS[last] ? `${WORDS[parent]}, ` : '';
  const where = [axle && `${axle} axle`, side && `${side} pack`, piece && `piece ${piece.slice(1)}`].filter(Boolean);
  return capital(where.length > 0 ? `${where.join(', ')}: ${whose}${own}` : `${whose}${own}`);
}

/** A value of the build in a word or two. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (Array.isArray(value)) return value.length === 1 ? '1 entry' : `${value.length} entries`;
  if (typeof value === 'object') {
    const of = value as Readonly<Record<string, unknown>>;
    if (typeof of['typed'] === 'string') return of['typed'];
    if (typeof of['ring'] === 'number' && typeof of['pinion'] === 'number') return `${of['ring']}/${of['pinion']}`;
    const name = of['name'] ?? of['kind'] ?? of['type'] ?? of['designation'];
    return typeof name === 'string' ? name : `${Object.keys(of).length} values`;
  }
  return String(value as string | number | boolean);
}
