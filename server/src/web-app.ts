import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { RequestHandler } from 'express';

/** What the service worker of Angular reads: which files there are, by their paths, and their hashes. */
interface WorkerFile {
  index: string;
  assetGroups: { urls: string[]; patterns: string[] }[];
  dataGroups: { patterns: string[] }[];
  hashTable: Record<string, string>;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

/** Its paths under another one; the page is another file there, and has another hash. Addresses of pages are taken from its scope on. */
function workerFile(text: string, prefix: string, page: string): string {
  const file = JSON.parse(text) as WorkerFile;
  const at = (url: string): string => `${prefix}${url.slice(1)}`;
  const pattern = (regex: string): string => regex.replace(/^\\\//, escaped(prefix));
  file.index = at(file.index);
  for (const group of file.assetGroups) {
    group.urls = group.urls.map(at);
    group.patterns = group.patterns.map(pattern);
  }
  for (const group of file.dataGroups) group.patterns = group.patterns.map(pattern);
  const { '/index.html': _, ...hashes } = file.hashTable;
  file.hashTable = Object.fromEntries(Object.entries(hashes).map(([url, hash]) => [at(url), hash]));
  file.hashTable[at('/index.html')] = createHash('sha1').update(page).digest('hex');
  return JSON.stringify(file);
}

/**
 * The web app under a path of its own: the page says where it stands, and what stands in other files of it follows.
 * @param prefix with a slash at both ends; `/`: as it was built
 */
export function webApp(
  folder: string,
  prefix: string,
): { readonly page: () => string; readonly served: RequestHandler } {
  const read = (name: string): string => readFileSync(path.join(folder, name), 'utf8');
  const page = (): string => {
    if (prefix === '/') return read('index.html');
    const [before, after, ...more] = read('index.html').split('<base href="/"');
    if (after === undefined || more.length > 0) throw new Error('The page does not say once where it stands.');
    return `${before ?? ''}<base href="${prefix}"${after}`;
  };
  const made: Readonly<Record<string, () => string>> = {
    '/index.html': page,
    '/ngsw.json': () => workerFile(read('ngsw.json'), prefix, page()),
  };
  return {
    page,
    served(request, response, next) {
      const make = prefix !== '/' && Object.hasOwn(made, request.path) ? made[request.path] : undefined;
      if (!make) return next();
      response.set('Cache-Control', 'no-cache').type(path.extname(request.path)).send(make());
    },
  };
}
