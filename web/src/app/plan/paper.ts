import { AXLES, GATES, capital, type AxleName } from '@hot-spline/model';
import { axleTitle, h2, p, saidAt, table } from '../papers/blocks';
import type { PaperInput, PaperLines, PaperTable } from '../shared/paper';

const dry = (input: PaperInput, name: AxleName): boolean =>
  saidAt(input, name)('fill', 'filled')?.startsWith('dry') ?? false;

/** The order of work: axle, step, how it ended, by whom, minutes planned and taken. */
const stepRows: PaperTable['rows'] = ({ derived, moment }) => [
  ['axle', 'step', 'state', 'why', 'by', 'at', 'planned minutes', 'taken minutes'],
  ...AXLES.flatMap((name) =>
    (derived.work[name]?.steps ?? []).map(({ step, status, why, done, takenMinutes }) => [
      name,
      step.title,
      status,
      why,
      done?.who ?? '',
      done ? moment(done.at) : '',
      String(step.minutes),
      takenMinutes === null ? '' : String(takenMinutes),
    ]),
  ),
];

const partRows: PaperTable['rows'] = ({ build }) => [
  ['axle', 'part', 'count', 'state', 'supplier', 'promised', 'price', 'number'],
  ...AXLES.flatMap((name) =>
    (build.axles[name]?.work?.parts ?? []).map((one) => [
      name,
      one.name,
      String(one.count),
      one.state,
      one.supplier,
      one.promised ?? '',
      one.price === null ? '' : String(one.price),
      one.number,
    ]),
  ),
];

export const paper: PaperLines = {
  tables: { steps: { name: 'Order of work', rows: stepRows }, parts: { name: 'Parts', rows: partRows } },
  /** What its step asks for. */
  against({ derived }, reading, axle) {
    const { step, record } = reading.subject as typeof reading.subject & Readonly<Record<string, string>>;
    const of = derived.work[axle]?.steps.find((one) => one.step.id === step);
    return of?.records.find((one) => one.record.id === record)?.against ?? null;
  },
  /** The work as it was done, step by step. */
  found(input, name) {
    const state = input.derived.work[name];
    if (!state) return [];
    return [
      h2(capital(`${axleTitle(input, name)}work, ${(state.minutes.taken / 60).toFixed(1)} h with hands on it`)),
      table(
        ['Step', '', 'By', 'Minutes'],
        state.steps.map(({ step, status, why, done, takenMinutes }) => [
          step.title,
          status === 'skipped' ? `left out: ${why}` : status === 'open' ? 'to do' : status,
          done ? [done.who, input.moment(done.at)].filter(Boolean).join(', ') : '',
          takenMinutes === null ? '' : String(Math.round(takenMinutes)),
        ]),
        ['*', 120, 130, 44],
      ),
    ];
  },
  done(input, name) {
    const said = saidAt(input, name);
    const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(', ');
    const additive = said('fill', 'additive');
    return oil ? [`Oil: ${oil}${additive ? `, additive ${additive}` : ''}.`] : [];
  },
  warns: (input, name) =>
    dry(input, name)
      ? [{ short: 'NO OIL IN IT', whole: 'THERE IS NO OIL IN IT. Fill it before it turns under load.' }]
      : [],
  todo: ({ derived }, name) =>
    derived.work[name]?.facts.arrives === 'loose-unit'
      ? ['Fill it with the oil of its sheet before it turns under load.']
      : [],
  label(input, name) {
    const said = saidAt(input, name);
    const oil = [said('fill', 'grade'), said('fill', 'volume')].filter(Boolean).join(' ');
    const parts = input.build.axles[name]?.work?.parts ?? [];
    const numbers = parts.filter(({ number }) => number !== '').slice(0, 3);
    const gates = input.derived.gates[name];
    const signed = (gate: (typeof GATES)[number]): string =>
      `gate ${gate} ${gates?.[gate].open ? (gates[gate].signature?.name ?? '') : 'open'}`;
    return {
      ...(oil ? { oil: `oil ${oil}` } : {}),
      ...(numbers.length > 0
        ? { numbers: numbers.map(({ name: part, number }) => `${part} no. ${number}`).join(', ') }
        : {}),
      ...(gates ? { signed: GATES.map(signed).join(', ') } : {}),
    };
  },
  brings: {
    'parts-list': {
      name: 'Parts list',
      about: 'What the job needs, and what is out in trays.',
      nothing: 'No job is planned.',
    },
  },
  cards: {
    'set-up-card'({ derived, moment }, name) {
      const gates = derived.gates[name];
      if (!gates || !derived.mesh[name]) return [];
      return GATES.map((gate) => {
        const { open, signature } = gates[gate];
        if (!open || !signature) return p(`Gate ${gate}: not signed`);
        const note = signature.note ? `. Opened with a note: “${signature.note}”` : '';
        return p(`Gate ${gate}: ${signature.name}, ${moment(signature.at)}${note}`);
      });
    },
    /** Parts and tools of the job, and what came off. */
    'parts-list'(input, name) {
      const work = input.build.axles[name]?.work;
      if (!work) return [];
      return [
        h2(capital(`${axleTitle(input, name)}parts`)),
        table(
          ['', 'Part', 'State', 'Number', 'Supplier, promised'],
          work.parts.map((one) => [
            `${one.count} ×`,
            one.name,
            one.state,
            one.number,
            [one.supplier, one.promised ?? ''].filter(Boolean).join(', '),
          ]),
          [28, '*', 50, 120, 120],
        ),
        ...(work.trays.length > 0
          ? [
              h2(capital(`${axleTitle(input, name)}trays`)),
              table(
                ['Part', 'Side', 'Length, facing', 'Out', 'Back'],
                work.trays.map((one) => [one.part, one.side, one.facing, String(one.out), String(one.back)]),
                ['*', 50, 140, 40, 40],
              ),
            ]
          : []),
      ];
    },
  },
};
