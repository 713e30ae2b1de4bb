// Deriving a build: the whole of it, and what an edit or a tick of a slider asks anew.
import { readFileSync, readdirSync } from 'node:fs';
import { BuildDeriver, deriveBuild, readBuildFile } from '@hot-spline/model';

const round = (value, digits = 3) => Number(value.toPrecision(digits));
const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))];

/** Milliseconds of each of many calls, after warming up. */
function timesOf(run, times = 300) {
  for (let i = 0; i < 80; i++) run(i);
  return Array.from({ length: times }, (_, i) => {
    const start = performance.now();
    run(i);
    return performance.now() - start;
  });
}
const median = (run, times) => round(quantile(timesOf(run, times), 0.5));
const both = (times) => ({ medianMs: round(quantile(times, 0.5)), p99Ms: round(quantile(times, 0.99)) });

const demos = () =>
  readdirSync('demo')
    .filter((name) => name.endsWith('.json'))
    .map((name) => ({ name, ...readBuildFile(JSON.parse(readFileSync(`demo/${name}`, 'utf8'))) }));

/** Of a ledger so many entries: its own, again and again, each with a name and a moment of its own. */
function longer(ledger, entries) {
  const all = [];
  for (let i = 0; all.length < entries; i++)
    for (const entry of ledger)
      if (all.length < entries)
        all.push({ ...entry, id: `${entry.id.slice(0, -6)}${String(all.length).padStart(6, '0')}` });
  return all;
}

export function derivation() {
  const rows = demos().map(({ name, build, ledger }) => ({
    name,
    axles: Object.values(build.axles).filter(Boolean).length,
    box: build.box !== null && build.box !== undefined,
    entries: ledger.length,
    deriveMs: median(() => deriveBuild(build, ledger)),
    cloneMs: median(() => structuredClone({ build, ledger }), 60),
  }));
  const [most] = demos().sort(
    (a, b) =>
      Object.values(b.build.axles).filter(Boolean).length - Object.values(a.build.axles).filter(Boolean).length ||
      b.ledger.length - a.ledger.length,
  );
  const ledger = longer(most.ledger, 2000);
  const deriver = new BuildDeriver();
  const boxed = demos().find((one) => one.build.box);
  const build = { ...most.build, box: boxed.build.box, gearbox: boxed.build.gearbox };
  const edits = {
    point: (i) => deriver.derive(build, ledger, { point: { ...build.startPoint, rpm: 3000 + (i % 100) } }),
    finalDrive: (i) =>
      deriver.derive(
        {
          ...build,
          axles: {
            ...build.axles,
            rear: build.axles.rear && { ...build.axles.rear, finalDrive: { ring: 37 + (i % 9), pinion: 10 } },
          },
        },
        ledger,
      ),
    reading: (i) => deriver.derive(build, ledger.slice(0, 1900 + (i % 100))),
    name: (i) => deriver.derive({ ...build, name: `Bench ${i % 50}` }, ledger),
  };
  return {
    demo: rows,
    large: {
      of: `${most.name}, with the box of ${boxed.name}`,
      axles: Object.values(build.axles).filter(Boolean).length,
      entries: ledger.length,
      deriveMs: median(() => deriveBuild(build, ledger), 60),
      edits: Object.fromEntries(Object.entries(edits).map(([what, run]) => [what, both(timesOf(run))])),
    },
  };
}
