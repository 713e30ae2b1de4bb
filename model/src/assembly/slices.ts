import { boxSlice } from '../box/schema';
import { gearingSlice } from '../gearing/schema';
import { identitySlice } from '../identity/schema';
import { jointSlice } from '../joint/schema';
import { librarySlice } from '../library/schema';
import { meshSlice } from '../mesh/schema';
import { planSlice } from '../plan/schema';
import { pointSlice } from '../point/schema';
import { practiceSlice } from '../practice/schema';
import { roadSlice } from '../road/schema';
import { shaftSlice } from '../shaft/schema';
import { unitSlice } from '../unit/schema';

/** What each capability brings to an axle, in the order of the document. */
export const axleShape = {
  ...gearingSlice.axle,
  ...unitSlice.axle,
  ...librarySlice.axle,
  ...identitySlice.axle,
  ...meshSlice.axle,
  ...planSlice.axle,
  ...jointSlice.axle,
  ...shaftSlice.axle,
} as const;

/** What each brings to a build. */
export const buildShape = {
  ...pointSlice.build,
  ...gearingSlice.build,
  ...identitySlice.build,
  ...roadSlice.build,
  ...practiceSlice.build,
  ...boxSlice.build,
} as const;
