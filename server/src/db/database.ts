/** A row as the driver gives it. */
export type Row = Record<string, unknown>;

/** The one seam to the database: what PGlite and a PostgreSQL server both understand. */
export interface Queries {
  /** Runs one parameterised statement. */
  query<R extends Row = Row>(text: string, params?: readonly unknown[]): Promise<R[]>;
}

export interface Database extends Queries {
  /** Runs `work` in one transaction: all of it is kept, or none. */
  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T>;
  /**
   * Hears what was told (keep/tell.ts) once it is committed, by whichever process; an empty word where some may have been missed.
   * Called once.
   */
  listen(heard: (told: string) => void): Promise<void>;
  close(): Promise<void>;
}

/** The channel of PostgreSQL that changes are told on. */
export const CHANNEL = 'hot_spline';
