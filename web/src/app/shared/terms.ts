/** A word of the trade in one sentence, and where it is a length, what is measured from where to where. */
export interface Term {
  readonly title: string;
  readonly text: string;
  readonly drawing?: 'case-depth' | 'finish' | 'stack';
}

export const TERMS = {
  finish: {
    title: 'Finish at',
    text: 'Where the clock stops, measured from the start line: a quarter mile, 60 ft, or the length of your own straight.',
    drawing: 'finish',
  },
  window: {
    title: 'Rpm range',
    text: 'Where the engine should turn at the finish or at cruise: the goal says which, and sets are ranked by how far they miss it. The rpm ladder shows it too.',
  },
  hub: {
    title: 'Hub reduction',
    text: 'A second reduction in the wheel hubs, as on portal axles. 1 where there is none.',
  },
  rotatingMass: {
    title: 'Rotating-mass factor, λ',
    text: 'Wheels, shafts and flywheel have to be spun up too, so the car feels heavier than it is: 1.05 is 5 % heavier. Left empty it follows the ratio i: 1.04 + 0.0025·i², while the engine, not the tyre, is the limit.',
  },
  efficiency: {
    title: 'Driveline efficiency',
    text: 'What is left of the engine’s power at the tyre after gearbox, joints and final drive have taken theirs. What nobody said is a guess of ours.',
  },
  grip: {
    title: 'Grip, μ',
    text: 'Peak force at the contact patch as a share of the load on it. Rolling resistance of the driven wheels is paid by the axle, not by grip: a μ worked out of axle torque, T/(r·N), is greater by the rolling coefficient.',
  },
  caseDepth: {
    title: 'Case depth',
    text: 'Room for one pack: from the inner wall of the case to the back of the side gear, the gear pushed home. What the stack leaves of it is left for the spring.',
    drawing: 'case-depth',
  },
  stackTarget: {
    title: 'Stack height',
    text: 'All that lies in one pack, put together and pressed lightly, without the dished spring.',
    drawing: 'stack',
  },
  points: {
    title: 'Points, 0 to 100',
    text: 'Each column by itself: 100 is as good as it gets, 0 not at all. The first figure is their mean by the weights in the row below.',
  },
} satisfies Record<string, Term>;

export type TermName = keyof typeof TERMS;
