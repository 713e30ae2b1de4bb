/** The database has gone down under the server: what it was asked is not answered any more. */
export class DatabaseLost extends Error {}
