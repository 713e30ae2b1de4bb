-- Each entry of a ledger and each version of a build carries the hash of the one before it, over the text as it is kept. How many
-- there are and the last hash stand with the build too: what is taken out, added or changed does not add up any more.
alter table ledger add column n integer
--;
alter table ledger add column hash text
--;
create unique index ledger_position on ledger (build_id, n) where n is not null
--;
alter table build_versions add column hash text
--;
alter table builds add column ledger_count integer not null default 0
--;
alter table builds add column ledger_head text not null default ''
--;
alter table builds add column version_head text not null default ''
--;
-- What was here before is closed by one hash each: how many, and over what.
alter table builds add column ledger_closed integer not null default 0
--;
alter table builds add column ledger_closing text not null default ''
--;
alter table builds add column versions_closed integer not null default 0
--;
alter table builds add column versions_closing text not null default ''
--;
update builds b set ledger_count = c.count, ledger_closed = c.count, ledger_closing = c.hash, ledger_head = c.hash
from (
  select build_id, count(*)::int as count,
         encode(sha256(convert_to(string_agg(format_version || E'\n' || entry::text, E'\n' order by seq), 'UTF8')), 'hex') as hash
  from ledger group by build_id
) c where c.build_id = b.id
--;
update builds b set versions_closed = c.count, versions_closing = c.hash, version_head = c.hash
from (
  select build_id, count(*)::int as count,
         encode(sha256(convert_to(string_agg(format_version || E'\n' || document::text, E'\n' order by version), 'UTF8')), 'hex') as hash
  from build_versions group by build_id
) c where c.build_id = b.id
