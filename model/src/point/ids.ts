/** Ids of the figures at the operating point. */
export const pointFigures = {
  engine: () => 'point.engine' as const,
  speed: () => 'point.speed' as const,
  gearboxRpm: () => 'point.gearboxRpm' as const,
  propRpm: () => 'point.propRpm' as const,
  gearbox: () => 'point.gearbox' as const,
  prop: () => 'point.prop' as const,
  input: () => 'point.input' as const,
  coupling: () => 'coupling.margin' as const,
  limit: (gear: number) => `gearing.limit.${gear}` as const,
};
