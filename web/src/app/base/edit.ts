/**
 * A change, as what it makes of the newest value. An editor that sent a whole changed value instead would make it from
 * what was last drawn, and undo a change made since.
 */
export type Edit<T> = (newest: T) => T;
