import { v4 } from 'uuid';

/** An id made here, so that a retry never doubles a write. The browser's own maker of them exists only on https and localhost. */
export const newId = (): string => v4();
