// npm run certificate: https on the shop's own network, by an authority of the shop's own.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { StartProblem } from './base/start-problem';
import { readConfig } from './config';
import { prepareFolder } from './db/data-folder';
import { ROOT } from './serve';
import { makeCertificate, ownNames } from './tls/certificate';
import { fingerprintOf } from './tls/files';

const say = (line: string): void => void process.stdout.write(`${line}\n`);

try {
  const { dataFolder } = readConfig({ ...process.env, HOT_SPLINE_TLS: '0' }, fileURLToPath(ROOT));
  const asked = process.argv.slice(2);
  for (const name of asked)
    if (!/^[\w.:-]{1,253}$/.test(name))
      throw new StartProblem(`${name} is no name of a machine.`, 'npm run certificate -- shop.local 192.168.1.20');
  await prepareFolder(dataFolder);
  const names = [...new Set([...asked, ...ownNames()])];
  const { authority, certificate } = await makeCertificate(dataFolder, names);
  say(`${certificate}: for ${names.join(', ')}.`);
  say(`${authority}: the shop’s own authority. Its fingerprint (SHA-256):`);
  say(`  ${fingerprintOf(readFileSync(authority, 'utf8'))}`);
  say('Start it over https: HOST=0.0.0.0 HOT_SPLINE_TLS=1 npm start – it says where each device learns to trust it.');
} catch (error) {
  if (!(error instanceof StartProblem)) throw error;
  process.stderr.write(`${error.message} ${error.advice}\n`);
  process.exitCode = 1;
}
