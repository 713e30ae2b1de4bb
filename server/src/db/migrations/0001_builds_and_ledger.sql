create table builds (
  id uuid primary key,
  name text not null,
  vehicle text not null,
  use text not null,
  version integer not null,
  document json not null,
  archived boolean not null default false,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now()
)
--;
-- Every version that was ever acknowledged; write_id is made in the browser, so that a retried write is one write.
create table build_versions (
  build_id uuid not null references builds (id),
  version integer not null,
  write_id uuid not null unique,
  document json not null,
  written_at timestamptz not null default now(),
  primary key (build_id, version)
)
--;
create table ledger (
  seq bigint generated always as identity primary key,
  build_id uuid not null references builds (id),
  id uuid not null,
  kind text not null check (kind in ('reading', 'void')),
  voids uuid,
  entry json not null,
  received_at timestamptz not null default now(),
  unique (build_id, id),
  foreign key (build_id, voids) references ledger (build_id, id),
  check ((kind = 'void') = (voids is not null))
)
--;
-- A reading is voided once.
create unique index ledger_voids on ledger (build_id, voids) where voids is not null
--;
create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'the ledger is append-only';
end $$
--;
create trigger ledger_append_only before update or delete on ledger
  for each row execute function refuse_change()
--;
create table settings (
  key text primary key,
  value text not null
)
