import { unitLabel, type Entry } from '@hot-spline/core';

/** As it was typed; a bare number with the unit that it was read in. */
export const unitsSaid = ({ typed, unit }: Entry): string =>
  unit === '' || /[a-z°%″′"']/i.test(typed) ? typed : `${typed} ${unitLabel(unit)}`;
