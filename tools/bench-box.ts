import { readFileSync } from 'node:fs';
import { boxRound, deriveBuild, drumState, readBuildFile, stackedBox, withPair } from '@hot-spline/model';
import { checkDrum, judgeBox, restack, travelAt, type Drum } from '@hot-spline/core';

const round = (value: number): number => Number(value.toPrecision(3));
/** Milliseconds of one call, the median of many. */
function timeOf(run: (i: number) => unknown, times = 400): number {
  for (let i = 0; i < 50; i++) run(i);
  const all = Array.from({ length: times }, (_, i) => {
    const start = performance.now();
    run(i);
    return performance.now() - start;
  });
  return all.sort((a, b) => a - b)[Math.floor(times / 2)] ?? Number.NaN;
}

/** Drum by crossings against sampling it at each hundredth of a degree; a pair that is dragged against a frame of the screen. */
export function boxInHand() {
  const file = readBuildFile(
    JSON.parse(readFileSync(new URL('../demo/wren-drift-saloon.json', import.meta.url), 'utf8')),
  );
  const { box } = file.build;
  const state = deriveBuild(file.build, file.ledger).box;
  if (!box?.drum || !state?.drum) throw new Error('the demo has no drum');
  const drum: Drum = {
    tracks: box.drum.tracks.map(({ hub, points }) => ({ name: hub, points })),
    touchMm: state.drum.touchMm,
    radiusMm: 28,
  };
  const [from, to] = [drum.tracks[0]?.points[0]?.[0] ?? 0, drum.tracks[0]?.points.at(-1)?.[0] ?? 0];
  const sampled = (): number => {
    let both = 0;
    for (let angle = from; angle <= to; angle += 0.01)
      if (drum.tracks.filter((track) => Math.abs(travelAt(track, angle)) >= drum.touchMm).length > 1) both++;
    return both;
  };
  const still = { driving: 0, driven: 0 };
  const before = stackedBox(box, still);
  const dragged = (i: number) => {
    const after = withPair(box, 'p3', { driver: 20 + (i % 3), driven: 33, fits: [], shiftSum: null }, 0);
    const stacked = stackedBox(after, still);
    const judged = judgeBox(stacked);
    drumState(after, judged);
    return [restack(before, stacked, []), boxRound(after, null)];
  };
  const [crossings, samples, drag] = [timeOf(() => checkDrum(drum)), timeOf(sampled, 7), timeOf(dragged)];
  return {
    drum: { ms: round(crossings), yardstick: 'the same drum at every 0.01°', ratio: round(samples / crossings) },
    drag: { ms: round(drag), yardstick: 'a frame at 60 Hz', ratio: round(drag / (1000 / 60)) },
  };
}
