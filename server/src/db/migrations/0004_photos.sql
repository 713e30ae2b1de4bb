-- Photos of pieces, kept under the SHA-256 of their bytes: the same photo is kept once and never changes.
create table photos (
  id text primary key check (id ~ '^[0-9a-f]{64}$'),
  type text not null,
  bytes bytea not null,
  received_at timestamptz not null default now()
)
