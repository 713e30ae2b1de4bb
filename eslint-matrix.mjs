// Who may import whom between the folders of a room: what stands on a line imports what stands above it, and of that only what
// is named here. So no folder imports in a circle; a knot is broken by moving the shared type up, not by a longer line.
const below = (...more) => ['base', 'frame', ...more];
const sheet = (...more) => ['base', 'state', 'gauge', 'shared', 'section', 'frame', 'papers', ...more];
const calculating = ['library', 'gearing', 'road'];

const MATRIX = {
  core: {
    base: [],
    units: ['base'],
    working: ['base', 'units'],
    unit: ['base'],
    joint: ['base'],
    shaft: ['base'],
    gauge: ['base', 'units'],
    gearing: ['base', 'units'],
    road: ['base', 'units', 'gearing'],
    pack: ['base', 'unit'],
    shim: ['base', 'pack'],
    mesh: ['base', 'pack', 'shim'],
    box: ['base', 'gearing', 'road', 'mesh'],
    section: ['base', 'mesh'],
    preload: ['base', 'pack', 'shim'],
    plan: ['base', 'units', 'unit', 'mesh', 'section'],
    practice: ['base', 'box', 'mesh', 'preload'],
  },
  model: {
    base: [],
    // What a capability is, and the document as each sees it.
    frame: ['base'],
    library: below(),
    gearing: below(),
    inspect: below(),
    pack: below('library'),
    road: below('gearing'),
    assumed: below('road'),
    identity: below(...calculating),
    point: below(...calculating),
    joint: below(...calculating, 'identity'),
    mesh: below('library', 'identity'),
    box: below('library', 'gearing', 'road', 'mesh'),
    unit: below(...calculating, 'pack', 'identity', 'point'),
    preload: below('library', 'identity', 'mesh'),
    shaft: below(...calculating, 'identity', 'joint', 'unit'),
    // The order of work puts together what each brings, and knows none of them.
    plan: below('library'),
    runin: below('plan'),
    // What is drawn of an axle, by what is known of it.
    section: below('library', 'pack', 'mesh', 'plan'),
    start: below('library', 'road', 'identity', 'unit'),
    practice: below('box', 'library', 'mesh', 'preload', 'start'),
    // The lists of capabilities, and what walks them.
    assembly: below(
      ...[...calculating, 'inspect', 'box', 'pack', 'assumed', 'identity', 'point', 'joint', 'mesh', 'unit'],
      ...['preload', 'shaft', 'plan', 'runin', 'practice'],
    ),
    document: below('assembly'),
    files: below('library', 'pack', 'assembly', 'document'),
    board: below('plan', 'assembly'),
    wire: below('library', 'start', 'assembly', 'document', 'files', 'board'),
  },
  server: {
    base: [],
    tls: ['base'],
    db: ['base'],
    threads: ['base'],
    keep: ['base', 'db', 'threads'],
    people: ['base', 'db', 'keep'],
    calc: ['base', 'threads'],
    gauges: ['base'],
    library: ['base', 'db', 'keep', 'people'],
    photos: ['base', 'db', 'keep'],
    shop: ['base', 'db', 'keep'],
    changes: ['base', 'db', 'keep', 'people'],
    board: ['base', 'db', 'keep'],
    builds: ['base', 'db', 'threads', 'keep', 'people'],
    ledger: ['base', 'db', 'threads', 'keep', 'builds', 'people'],
  },
  web: {
    base: [],
    state: ['base'],
    gauge: ['base', 'state'],
    // Fields, charts, words: what a sheet is built of, and how a capability describes itself.
    shared: ['base', 'state', 'gauge'],
    // The drawing of everything on a shaft, and the small ones of the steps.
    section: ['base', 'state', 'shared'],
    // What stands round every sheet; it shows what the list brings, and knows none of them.
    frame: ['base', 'state', 'gauge', 'shared'],
    papers: ['base', 'state', 'shared', 'frame'],
    people: ['base', 'state', 'shared', 'frame'],
    library: sheet(),
    identity: sheet('library'),
    point: sheet('library'),
    gearing: sheet('identity'),
    road: sheet('gearing'),
    box: sheet('library'),
    unit: sheet('library', 'identity'),
    pack: sheet('library'),
    mesh: sheet('library'),
    preload: sheet('library', 'mesh'),
    plan: sheet('library', 'mesh'),
    inspect: sheet('plan'),
    joint: sheet('library', 'mesh'),
    shaft: sheet(),
    runin: sheet('plan'),
    practice: sheet('library', 'mesh'),
    ledger: sheet(),
    summary: sheet('identity', 'gearing'),
    board: sheet('library', 'identity'),
  },
};

const FOLDERS = { web: 'web/src/app' };

for (const [room, lines] of Object.entries(MATRIX)) {
  const above = [];
  for (const [folder, may] of Object.entries(lines)) {
    const wrong = may.filter((one) => !above.includes(one));
    if (wrong.length > 0) throw new Error(`${room}/${folder} may not import ${wrong.join(', ')}: not above it`);
    above.push(folder);
  }
}

/** Each folder as an element of the import rules. */
export const elements = Object.entries(MATRIX).flatMap(([room, lines]) =>
  Object.keys(lines).map((folder) => ({
    type: `${room}/${folder}`,
    pattern: `${FOLDERS[room] ?? `${room}/src`}/${folder}`,
  })),
);

/** What each may import of its room; a folder that is not in the matrix may import none. */
export const policies = Object.entries(MATRIX).flatMap(([room, lines]) =>
  Object.entries(lines).map(([folder, may]) => ({
    from: { element: { type: `${room}/${folder}` } },
    disallow: {
      to: {
        element: {
          types: {
            anyOf: Object.keys(lines)
              .filter((one) => one !== folder && !may.includes(one))
              .map((one) => `${room}/${one}`),
          },
        },
      },
    },
    message: `${room}/${folder} may import ${may.join(', ') || 'no other folder'} (eslint-matrix.mjs)`,
  })),
);
