/** Words for one thing, as builders say it: whoever types one of a line finds what carries another. */
const SAME: readonly (readonly string[])[] = [
  ['breakaway', 'wrench', 'holding torque', 'break-away', 'slip torque'],
  ['oil', 'fluid', 'lubricant', 'fill', 'volume', 'gear oil', 'additive', 'friction modifier'],
  ['ring bolts', 'crown wheel bolts', 'ring gear bolts', 'bolt torque', 'ring joint'],
  ['ramp angle', 'ramp', 'ramps', 'lock angle', 'pressure ring'],
  ['rollout', 'rolling circumference', 'rolling radius', 'tyre size', 'overall diameter', 'roll-out'],
  ['dyno', 'torque curve', 'power curve', 'engine curve', 'dynamometer', 'engine and gearbox'],
  ['speedometer', 'speed is read', 'speed reading', 'speedo', 'sender', 'recalibrate'],
  ['delete build', 'remove build', 'put a build away', 'delete', 'archive'],
  ['run-out', 'runout', 'wobble'],
  ['carrier bearing', 'side bearing', 'carrier', 'side preload'],
  ['c-clips', 'shafts held by', 'retention', 'circlip'],
  ['crush sleeve', 'collapsible spacer', 'spacer', 'crush'],
  ['threadlocker', 'compound', 'thread lock', 'adhesive'],
  ['friction', 'coefficient', 'mu', 'grip of plates'],
  ['limiter', 'rev limit', 'redline', 'shift at'],
  ['gear ratios', 'gearbox', 'gear 1', 'transmission'],
  ['converter', 'stall', 'torque converter', 'coupling'],
  ['weight', 'mass', 'car weight', 'weight, driver in'],
  ['drag', 'air resistance', 'aero', 'drag c_d·a'],
  ['price', 'cost', 'money'],
  ['customer', 'client', 'owner', 'who owns'],
  ['promised', 'due date', 'deadline', 'delivery'],
  ['gauge', 'indicator', 'dial', 'micrometer', 'instrument'],
  ['bedding', 'bed in', 'run in', 'run-in', 'break in'],
  ['noise', 'whine', 'howl', 'rumble'],
  ['shaft', 'half shaft', 'axle shaft', 'splines'],
  ['match number', 'stamped', 'serial', 'match number, ring'],
  ['mark', 'pinion mark', 'mark, new pinion', 'deviation'],
  ['dished spring', 'belleville', 'disc spring', 'springs', 'preload spring'],
  ['stack height', 'pack height', 'stack'],
  ['backlash', 'lash', 'play'],
  ['final drive', 'ring and pinion', 'crown wheel', 'diff ratio', 'axle ratio'],
  ['tyre', 'tire', 'wheel'],
  ['unit', 'differential', 'diff', 'limited slip', 'locker', 'spool'],
  ['pinion depth', 'mounting distance', 'checking distance'],
  ['pattern', 'contact patch', 'marking paste', 'gear paint'],
  ['preload', 'turning torque', 'bearing drag', 'rotating torque'],
  ['drawer', 'shim box', 'shims', 'stock'],
  ['axle', 'spec sheet', 'housing'],
  ['clutch pack', 'plates', 'frictions', 'steels'],
  ['print', 'paper', 'pdf', 'hand over'],
  ['export', 'download', 'save as', 'back up', 'file'],
  ['import', 'open a file', 'load'],
  ['night', 'dark', 'theme', 'day', 'light'],
  ['units', 'metric', 'inch', 'imperial', 'millimetres', 'thou'],
  ['speed', 'km/h', 'mph', 'top speed'],
  ['course', 'track', 'lap', 'circuit'],
  ['ledger', 'readings', 'history', 'log', 'record'],
  ['run', 'acceleration', 'quarter mile'],
];

/** Everything that a word may stand for. */
export function meant(word: string): readonly string[] {
  const lines = SAME.filter((line) => line.some((one) => one.startsWith(word) || one.split(' ').includes(word)));
  return [...new Set([word, ...lines.flat()])];
}

/** Whether each word that was typed, or another for the same, stands in a text. Two words that are one term are tried as one too. */
export function matches(typed: string, text: string): boolean {
  const wanted = typed.toLowerCase().trim();
  const hay = text.toLowerCase();
  if (wanted === '') return true;
  const has = (word: string): boolean => meant(word).some((one) => hay.includes(one));
  return has(wanted) || wanted.split(/\s+/).every(has);
}
