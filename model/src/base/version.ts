/** Version of every shape that is kept: builds, ledger entries, library specs and the files of them. */
export const FORMAT_VERSION = 13;
