/** A tool that a step asks for, and what may stand in for it: common practice, no published source. */
interface Tool {
  readonly name: string;
  readonly standIns: readonly string[];
  /** What to know of it before the job starts. */
  readonly mind?: string;
}

export const TOOLS = {
  stands: {
    name: 'Stands and chocks',
    standIns: ['two-post lift'],
    mind: 'High enough to get the unit out: too low costs the job later.',
  },
  spanners: { name: 'Spanners and sockets', standIns: [] },
  'twelve-point': { name: '12-point sockets', standIns: [] },
  'drain-tray': { name: 'Drain tray', standIns: [] },
  'cover-lever': { name: 'Lever for the lip of the cover', standIns: ['chisel behind the lip'] },
  magnet: { name: 'Magnet', standIns: [] },
  paint: { name: 'Paint pen', standIns: ['centre punch'] },
  indicator: {
    name: 'Dial indicator on a stand',
    standIns: [],
    mind: 'Its ± against the band: one too coarse can’t decide.',
  },
  paste: { name: 'Marking paste', standIns: ['grease, for a look in between only'] },
  micrometer: { name: 'Micrometer', standIns: ['calliper, with its wider ±'] },
  calliper: { name: 'Calliper', standIns: [] },
  'depth-gauge': { name: 'Pinion depth gauge', standIns: ['bore diameter, cap depth and a depth calliper'] },
  'depth-rod': { name: 'Depth rod', standIns: ['calliper’s tail', 'screwdriver and calliper'] },
  spreader: {
    name: 'Case spreader with indicator',
    standIns: ['levers with soft fulcrums, evenly'],
    mind: 'A home-made one yields in the middle of the rounds: know what it stands, and the case’s limit.',
  },
  'soft-lever': { name: 'Levers with a soft fulcrum', standIns: ['hardwood under the bar'] },
  'adjuster-wrench': {
    name: 'Adjuster wrench of this carrier’s pattern',
    standIns: [],
    mind: 'Patterns differ: try it before the job. With a chisel the holes break out one after another.',
  },
  'flange-holder': {
    name: 'Flange holder',
    standIns: [],
    mind: 'Two bolts and a bar slip: skin and flange pay.',
  },
  puller: {
    name: 'Puller that grips the race',
    standIns: ['take cage and rollers off, heat, chisel carefully'],
    mind: 'Look at its jaws: a worn one needs a clamp.',
  },
  separator: { name: 'Bearing separator', standIns: ['puller that grips the race'] },
  press: { name: 'Press', standIns: ['driver on the inner race, with heat'] },
  'race-drivers': { name: 'Race drivers', standIns: ['old race, ground down', 'punch, side to side'] },
  'soft-hammer': { name: 'Soft hammer', standIns: ['brass drift'] },
  'slide-hammer': { name: 'Slide hammer', standIns: ['lever behind the flange'] },
  'turning-wrench': {
    name: 'Turning-torque wrench, low range',
    standIns: ['cord and spring scale: force × radius'],
    mind: 'One that is only as good as the band is wide says nothing.',
  },
  'torque-wrench': { name: 'Torque wrench', standIns: [], mind: 'Range around the torque, and checked.' },
  'left-torque-wrench': {
    name: 'Torque wrench that tightens left-hand',
    standIns: ['beam wrench'],
    mind: 'A click wrench that works one way only can’t: it would over-torque.',
  },
  breaker: {
    name: 'Breaker bar or impact gun',
    standIns: [],
    mind: 'High-strength threadlocker holds more than the bolts were put in with: heat first.',
  },
  heat: { name: 'Heat: oven, induction heater or torch', standIns: ['freezer for the carrier'] },
  thermometer: { name: 'Thermometer', standIns: ['temperature crayon'] },
  gloves: { name: 'Gloves for heat, face shield', standIns: [] },
  'through-bolts': { name: 'Two through-bolts with washers', standIns: [] },
  feeler: { name: 'Feelers', standIns: ['shim stock of a known thickness'] },
  file: { name: 'Flat file', standIns: ['flat stone'] },
  stone: { name: 'Flat stone', standIns: ['flat file'] },
  grinder: { name: 'Surface or belt grinder', standIns: ['lathe'] },
  'washer-tank': { name: 'Parts washer and cleaner without oil', standIns: ['brush and solvent'] },
  light: { name: 'Lamp', standIns: [] },
  camera: { name: 'Camera', standIns: [] },
  trays: { name: 'Trays with labels', standIns: ['bolts back into their own holes'] },
  'set-up-bearings': {
    name: 'Set-up bearings',
    standIns: ['the final ones pressed on and off, at their risk'],
    mind: 'Same make and number as the final ones: heights differ between makes.',
  },
  'v-blocks': {
    name: 'V-blocks',
    standIns: ['centres'],
    mind: 'On the bearing seats: on other lands they read falsely.',
  },
  'bench-stand': { name: 'Stand for the unit', standIns: ['vice with soft jaws'] },
  'tube-bender': { name: 'Tube bender', standIns: ['by hand round a socket, gently'] },
  'pressure-gauge': { name: 'Pressure gauge and pump', standIns: [] },
  pump: { name: 'Oil pump', standIns: ['bottle and hose'] },
  'sealant-gun': { name: 'Sealant', standIns: ['gasket'] },
} as const satisfies Record<string, Tool>;

export type ToolId = keyof typeof TOOLS;
export const toolOf = (id: ToolId): Tool => TOOLS[id];
