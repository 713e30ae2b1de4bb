-- What is written in the ledger of a build, a row a word, so that the search of the board finds it by how a word begins.
create table build_words (
  build_id uuid not null references builds (id),
  word text collate "C" not null,
  primary key (word, build_id)
)
--;
-- The words are gathered with how far the work is: when the board is looked at, piece by piece.
update builds set stale = true
