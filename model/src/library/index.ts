import { defineCapability } from '../frame/capability';

/** What the shop knows: axles, gearboxes, drawers, friction, its own ways. It judges nothing by itself. */
export const library = defineCapability({
  name: 'library',
  needs: [],
  figures: {},
  subjects: [],
  place: { sheet: 'brief', tab: 'axle', field: 'axle-spec-rear' },
  station: 'final',
  inputs: () => ({}),
  derive: () => null,
});
