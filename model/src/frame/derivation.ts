import { InputError, type UnitSystem } from '@hot-spline/core';
import { weakest, type Figure, type Rests } from './figure';
import { VERDICTS, type Facts, type Finding, type Place, type StationKind, type Words } from './finding';

type NewFigure = Omit<Figure, 'rests'> & { readonly uses?: readonly string[]; readonly rests?: Rests };
interface NewFinding<F extends Facts> extends Omit<Finding, 'facts' | 'say' | 'rests'> {
  readonly uses?: readonly string[];
  /** What it rests on beside its figures. */
  readonly rests?: Rests;
  readonly facts: F;
  readonly say: (facts: F, system: UnitSystem) => Words;
}

/** What nobody has said yet, by the paths of the document: `engine.torqueCurve`, `axles.rear.tyre`. */
export class Assumptions {
  constructor(private readonly paths: readonly string[] = []) {}

  get any(): boolean {
    return this.paths.length > 0;
  }

  /** The assumed paths among those that something uses; a path stands for all below it. */
  among(uses: readonly string[]): string[] {
    return this.paths.filter((path) =>
      uses.some((use) => path === use || path.startsWith(`${use}.`) || use.startsWith(`${path}.`)),
    );
  }
}

/** What is added where a judgement rests on something weak. */
const CAVEATS: Readonly<Partial<Record<Rests, string>>> = {
  assumed: 'Not judged: it rests on values that nobody has said yet.',
  memory: 'It rests on a guess: check it.',
};

/** Collects figures and findings of one capability while a build is derived. */
export class Derivation {
  constructor(
    private readonly assumptions = new Assumptions(),
    readonly figures = new Map<string, Figure>(),
    readonly findings: Finding[] = [],
    private readonly uses: readonly string[] = [],
    private readonly ids = new Set<string>(),
  ) {}

  /** The same collection, for figures and findings that use these paths of the document. */
  using(uses: readonly string[]): Derivation {
    return new Derivation(this.assumptions, this.figures, this.findings, [...this.uses, ...uses], this.ids);
  }

  private assumes(uses: readonly string[] = []): boolean {
    return this.assumptions.any && this.assumptions.among([...this.uses, ...uses]).length > 0;
  }

  /** @throws Error for an id that stands already: a mistake of ours */
  figure(figure: NewFigure): Figure {
    if (this.figures.has(figure.id)) throw new Error(`figure ${figure.id} is made twice`);
    // The figure itself is finished here: a copy would read what a lazy one has not worked out yet.
    const made = figure as { -readonly [K in keyof Figure]: Figure[K] };
    made.rests = this.assumes(figure.uses) ? 'assumed' : (figure.rests ?? 'said');
    this.figures.set(figure.id, made);
    return made;
  }

  /** A judgement; one that rests on something assumed does not judge, it is `not yet`. @throws Error for an id twice */
  finding<F extends Facts>({
    id,
    verdict,
    place,
    station,
    figures,
    rule,
    facts,
    say,
    uses,
    rests: own,
  }: NewFinding<F>): void {
    if (this.ids.has(id)) throw new Error(`finding ${id} is made twice`);
    const all = figures.map((figure) => this.figures.get(figure)?.rests ?? 'said');
    if (own) all.push(own);
    const rests = this.assumes(uses) ? 'assumed' : all.length === 0 ? 'said' : weakest(all);
    const caveat = CAVEATS[rests];
    this.add({
      id,
      verdict: rests === 'assumed' ? 'not-yet' : verdict,
      place,
      station,
      figures,
      rests,
      rule,
      facts,
      say: (system) => {
        const words = say(facts, system);
        return caveat === undefined ? words : { title: words.title, detail: `${words.detail} ${caveat}` };
      },
    });
  }

  private add(finding: Finding): void {
    this.ids.add(finding.id);
    this.findings.push(finding);
  }

  /** A calculation that refuses its input becomes a finding that says so; any other error is passed on. */
  attempt<T>(place: Place, station: StationKind, run: () => T): T | null {
    try {
      return run();
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      this.refused(place, station, error);
      return null;
    }
  }

  private refused(place: Place, station: StationKind, { message, allowed, field }: InputError): void {
    const id = `refused.${place.sheet}.${place.axle ?? ''}.${field}`;
    if (this.ids.has(id)) return;
    this.add({
      id,
      verdict: 'stop',
      place,
      station,
      figures: [],
      rests: 'said',
      rule: 'a calculation refused this input',
      facts: { field, message, allowed },
      say: () => ({ title: 'Can’t be worked out', detail: `${message} Allowed: ${allowed}.` }),
    });
  }
}

/** Most serious first, otherwise in the order of need. */
export function bySeriousness(findings: readonly Finding[]): Finding[] {
  return [...findings].sort((a, b) => VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict));
}
