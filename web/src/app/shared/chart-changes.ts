type Part = Readonly<Record<string, unknown>>;
export type ChartParts = Part & { readonly series?: readonly (Part & { readonly id?: unknown })[] };

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * What has to be handed to the chart so that it shows `after` where it shows `before`: the series and parts that
 * differ, or everything, with the series replaced, when other series are there. Parts must differ in plain data: a
 * function in them is not looked into.
 */
export function chartChanges(
  before: ChartParts | null,
  after: ChartParts,
): { readonly option: Part; readonly replace: boolean } {
  const ids = (parts: ChartParts): unknown[] => (parts.series ?? []).map(({ id }) => id);
  if (before === null || !same(ids(before), ids(after))) return { option: after, replace: true };
  const option: Record<string, unknown> = {};
  for (const [key, part] of Object.entries(after)) {
    if (key !== 'series' && !same(part, before[key])) option[key] = part;
  }
  const series = (after.series ?? []).filter((one, i) => !same(one, before.series?.[i]));
  if (series.length > 0) option['series'] = series;
  return { option, replace: false };
}

const ends = (axis: unknown): Part => {
  const { min, max } = axis as { min?: unknown; max?: unknown };
  return { min, max };
};

/**
 * A picture as layers: below what stands still with its axes, above the series that move on the same scales without axes
 * of their own. One layer where nothing moves. Both axes must have their ends fixed, and the grid its edges in pixels.
 */
export function chartLayers(parts: ChartParts, moving: readonly string[]): ChartParts[] {
  const all = parts.series ?? [];
  if (moving.length === 0 || all.length === 0) return [parts];
  const moves = (one: { readonly id?: unknown }): boolean => moving.includes(String(one.id));
  return [
    { ...parts, series: all.filter((one) => !moves(one)) },
    {
      grid: parts['grid'],
      xAxis: ends(parts['xAxis']),
      yAxis: ends(parts['yAxis']),
      series: all.filter(moves),
    },
  ];
}
