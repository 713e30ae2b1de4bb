/** Ids of the figures of the run. */
export const roadFigures = {
  time: () => 'road.time' as const,
  speed: () => 'road.speed' as const,
  rpm: () => 'road.rpm' as const,
  zeroTo100: () => 'road.zeroTo100' as const,
  slipTime: () => 'road.slipTime' as const,
  slipSpeed: () => 'road.slipSpeed' as const,
  tyreLimit: () => 'road.tyreLimit' as const,
  heat: () => 'road.heat' as const,
  heatBefore: () => 'road.heatBefore' as const,
  hale: () => 'road.hale' as const,
};
