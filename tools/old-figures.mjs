// Writes what the documents of each earlier version show today, so that nothing moves unseen; run it where a law was
// corrected on purpose, and read the difference: node --import tsx tools/old-figures.mjs
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { deriveBuild, readBuildFile } from '../model/src/index.ts';
import { root } from './ensure.mjs';

const old = `${root}model/src/document/old/`;
for (const version of readdirSync(old)) {
  const shown = {};
  for (const name of readdirSync(`${old}${version}`).filter((one) => /coupe|truck|hatch|climb|saloon/.test(one))) {
    if (name.startsWith('early')) continue;
    const { build, ledger } = readBuildFile(JSON.parse(readFileSync(`${old}${version}/${name}`, 'utf8')));
    const axles = Object.entries(build.axles).filter(([, axle]) => axle);
    shown[name] = Object.fromEntries(
      axles.map(([axle]) => {
        const derived = deriveBuild(build, ledger, { follow: axle, today: '2026-11-25' });
        const figures = Object.fromEntries([...derived.figures].map(([id, figure]) => [id, figure.value]));
        const findings = derived.findings.map((one) => [
          one.id,
          one.verdict,
          one.say('inch').title,
          one.say('metric').detail,
        ]);
        return [axle, { figures, findings }];
      }),
    );
  }
  writeFileSync(`${old}${version}/figures.json`, `${JSON.stringify(shown)}\n`);
}
