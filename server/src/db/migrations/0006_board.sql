-- Whose cars these are: a name and a way to reach them, no more; gone when they are erased.
create table customers (
  id uuid primary key,
  name text not null,
  reach text not null default '',
  created_at timestamptz not null default now()
)
--;
-- What board, search and recall need without looking into documents or ledgers.
alter table builds add column promised text
--;
alter table builds add column worker text not null default ''
--;
alter table builds add column customer uuid
--;
alter table builds add column facets text not null default ''
--;
-- How far the work is; worked out again when a row is stale.
alter table builds add column state text not null default 'open'
--;
alter table builds add column work text not null default '{}'
--;
alter table builds add column stale boolean not null default true
--;
create index builds_board on builds (archived, name, id)
--;
create index builds_stale on builds (id) where stale
--;
create table build_facets (
  build_id uuid not null references builds (id),
  facet text not null,
  primary key (facet, build_id)
)
--;
create index build_facets_build on build_facets (build_id)
