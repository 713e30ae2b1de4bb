-- What the board asks for without looking into documents: what a job waits for, what kind it is, what is lent, when it is due.
alter table build_rows add column rest text not null default ''
--;
-- Until when something sets; past it, nothing waits for it.
alter table build_rows add column sets_until timestamptz
--;
alter table build_rows add column jobs text not null default ''
--;
alter table build_rows add column lent boolean not null default false
--;
alter table build_rows add column recheck_on text
--;
create or replace view builds as
  select id, name, vehicle, use, version, document, archived, created_at, updated_at, format_version, rechecks, unreadable, surveyed, who,
         promised, worker, customer, facets, state, work, stale, ledger_count, ledger_head, version_head, ledger_closed, ledger_closing,
         versions_closed, versions_closing, held, unread, rest, sets_until, jobs, lent, recheck_on
  from build_rows where arriving is null
--;
-- States and what goes with them are worked out anew.
update build_rows set stale = true
--;
update build_rows set recheck_on = rechecks::json -> 0 ->> 'on'
--;
create index builds_promised on build_rows (promised) where promised is not null and not archived
--;
create index builds_worker on build_rows (worker) where worker <> ''
--;
-- What stands on parts lists, by build: what is to be ordered, and what a number belongs to.
create table listed_parts (
  build_id uuid not null references build_rows (id),
  axle text not null,
  part text not null,
  name text not null,
  count integer not null,
  state text not null,
  supplier text not null,
  number text not null,
  price double precision,
  primary key (build_id, axle, part)
)
--;
create index listed_parts_number on listed_parts (lower(number)) where number <> ''
--;
create index listed_parts_needed on listed_parts (build_id) where state = 'needed'
--;
create index builds_name on build_rows (lower(name))
--;
-- Programs of others that are told what happens here, and what is still to be told them.
create table hooks (
  id uuid primary key,
  url text not null,
  secret text not null,
  events text[] not null,
  made timestamptz not null default now(),
  ok_at timestamptz,
  problem text not null default ''
)
--;
create table hook_calls (
  id uuid primary key,
  hook_id uuid not null references hooks (id) on delete cascade,
  made timestamptz not null default now(),
  body text not null,
  tries integer not null default 0,
  due timestamptz not null default now()
)
--;
create index hook_calls_due on hook_calls (due)
