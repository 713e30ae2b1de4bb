import type { Subject } from '../frame/subjects';
import { boxSubjects } from '../box/readings';
import { identitySubjects } from '../identity/readings';
import { inspectSubjects } from '../inspect/readings';
import { jointSubjects } from '../joint/readings';
import { meshSubjects, preloadSubjects } from '../mesh/readings';
import { packSubjects } from '../pack/readings';
import { workSubjects } from '../plan/readings';
import { runInSubjects } from '../runin/readings';
import { unitSubjects } from '../unit/readings';

/**
 * Everything that can be read. It stands apart from the capabilities, which name the same (contract.spec.ts): who checks
 * an entry of the ledger needs no derivation.
 */
export const subjects: readonly Subject[] = [
  ...identitySubjects,
  ...packSubjects,
  ...unitSubjects,
  ...meshSubjects,
  ...preloadSubjects,
  ...jointSubjects,
  ...inspectSubjects,
  ...workSubjects,
  ...runInSubjects,
  ...boxSubjects,
];
