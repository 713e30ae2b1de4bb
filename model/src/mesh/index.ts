import type { Axle } from '../frame/document';
import { AXLES, type AxleName } from '../base/names';
import { defineCapability } from '../frame/capability';
import { deriveMesh } from './derive';
import { meshFigures } from './ids';
import { pastOfSpec } from './past';
import { meshSubjects } from './readings';
import { meshAxle } from './state';
import { meshParts, meshSteps } from './steps';
import * as words from './words';
import { meshWork } from './work';
import type { MeshAxle } from './axle';

export type MeshStates = Partial<Record<AxleName, MeshAxle>>;

type Of = Pick<Axle, 'setup' | 'identity' | 'finalDrive'> | null;

/** Depth, backlash and pattern: every assembly with what was read. */
export const mesh = defineCapability({
  name: 'mesh',
  needs: [],
  figures: meshFigures,
  subjects: meshSubjects,
  work: { steps: meshSteps, parts: meshParts },
  place: { sheet: 'baseline', field: 'construction' },
  station: 'final',
  inputs: ({ build: { axles }, readings, past }) => ({
    rearSetup: axles.rear?.setup,
    rearIdentity: axles.rear?.identity,
    rearFinal: axles.rear?.finalDrive,
    frontSetup: axles.front?.setup,
    frontIdentity: axles.front?.identity,
    frontFinal: axles.front?.finalDrive,
    readings,
    past,
  }),
  derive: ({ readings, past, ...of }, d): MeshStates => {
    const axles: Partial<Record<AxleName, Of>> = {
      rear: of.rearFinal
        ? { setup: of.rearSetup ?? null, identity: of.rearIdentity ?? null, finalDrive: of.rearFinal }
        : null,
      front: of.frontFinal
        ? { setup: of.frontSetup ?? null, identity: of.frontIdentity ?? null, finalDrive: of.frontFinal }
        : null,
    };
    const states: MeshStates = {};
    for (const name of AXLES) {
      const axle = axles[name];
      if (!axle) continue;
      const open = (id: string, field: string, say: typeof words.notBegun): void =>
        d.finding({
          id: `mesh.${name}.${id}`,
          verdict: 'not-yet',
          place: { sheet: 'baseline', axle: name, field: `${field}-${name}` },
          station: 'final',
          figures: [],
          rule: 'strip with evidence (common practice)',
          facts: { axle: name },
          say,
        });
      if (!axle.setup) {
        open('setup', 'begin', words.notBegun);
        continue;
      }
      if (!axle.identity) {
        open('construction', 'construction', words.noConstruction);
        continue;
      }
      const { setup, identity, finalDrive } = axle;
      const own = d.using([`axles.${name}.finalDrive`]);
      d.attempt({ sheet: 'baseline', axle: name, field: `construction-${name}` }, 'final', () => {
        const state = meshAxle(
          name,
          { setup, sheet: identity.sheet, construction: identity.construction.value, finalDrive },
          readings,
          pastOfSpec(past, identity.name, identity.construction.value),
        );
        states[name] = state;
        deriveMesh(state, readings, own);
      });
    }
    return states;
  },
  knows: (name, states, { readings }) => meshWork(states[name] ?? null, readings),
});
