// One part of the bench in a process of its own, by plain node and bundled, as core/ ships: run from its sources, with every function
// told its name, a closure costs as much as what it works out. Prints JSON.
// Usage: node tools/bench-part.mjs road runAgainstPackage [commit of the older way]
import path from 'node:path';
import { olderCore } from './bench-older.mjs';
import { ensureBundle } from './bundle.mjs';

const [file, name, before] = process.argv.slice(2);
const main = await ensureBundle('bench', { force: true });
const part = await import(path.join(path.dirname(main), `${file}.mjs`));
process.stdout.write(JSON.stringify(await part[name](before ? await olderCore(before) : null)));
