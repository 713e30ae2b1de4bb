-- What set-ups hold out of drawers and teach the next axle of their spec, and what jobs took: worked out when something is written,
-- never when somebody asks. `held`: what a build holds is here; `unread`: why its ledger can't be read.
alter table builds add column held boolean not null default false
--;
alter table builds add column unread text
--;
create index builds_not_held on builds (id) where not held
--;
create table holdings (
  build_id uuid not null references builds (id),
  n integer not null,
  -- The last entry of its ledger then: the newest teach first.
  seq bigint not null,
  drawers uuid[] not null,
  holding text not null,
  primary key (build_id, n)
)
--;
create index holdings_drawers on holdings using gin (drawers)
--;
create table lessons (
  build_id uuid not null references builds (id),
  axle text not null,
  seq bigint not null,
  spec text not null,
  lesson text not null,
  primary key (build_id, axle)
)
--;
create index lessons_spec on lessons (spec)
--;
create table job_times (
  build_id uuid not null references builds (id),
  n integer not null,
  seq bigint not null,
  times text not null,
  primary key (build_id, n)
)
--;
update builds set stale = true
