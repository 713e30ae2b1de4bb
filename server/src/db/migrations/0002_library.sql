-- Axles, gearboxes and drawers of shims that the shop made for itself.
create table library (
  id uuid primary key,
  kind text not null check (kind in ('axle', 'gearbox', 'shims')),
  name text not null,
  version integer not null,
  document json not null,
  archived boolean not null default false,
  updated_at timestamptz not null default now()
)
--;
-- Every version that was ever acknowledged; write_id is made in the browser, so that a retried write is one write.
create table library_versions (
  spec_id uuid not null references library (id),
  version integer not null,
  write_id uuid not null unique,
  document json not null,
  written_at timestamptz not null default now(),
  primary key (spec_id, version)
)
