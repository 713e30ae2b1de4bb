-- Photos are kept without what stands in them beside the picture. The id stays the hash of what was sent; `kept` is that of the bytes
-- that are here; null: of before, not yet looked at.
alter table photos add column kept text check (kept ~ '^[0-9a-f]{64}$')
--;
alter table photos add column arriving uuid
--;
-- Builds that arrive with an archive are there for nobody until all of them are: `builds` shows what is the shop’s. A column that a later
-- migration adds belongs into both.
alter table builds rename to build_rows
--;
alter table build_rows add column arriving uuid
--;
-- Who brings something in says so again and again: what nobody speaks for any more was left by a process that was killed.
create table arrivals (
  id uuid primary key,
  seen timestamptz not null default now()
)
--;
create index build_rows_arriving on build_rows (arriving) where arriving is not null
--;
create view builds as
  select id, name, vehicle, use, version, document, archived, created_at, updated_at, format_version, rechecks, unreadable, surveyed, who,
         promised, worker, customer, facets, state, work, stale, ledger_count, ledger_head, version_head, ledger_closed, ledger_closing,
         versions_closed, versions_closing, held, unread
  from build_rows where arriving is null
--;
-- What has not arrived can go again.
create or replace function refuse_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and exists (select 1 from build_rows where id = old.build_id and arriving is not null) then
    return old;
  end if;
  raise exception 'the ledger is append-only';
end $$
