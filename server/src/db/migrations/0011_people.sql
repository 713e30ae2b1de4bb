-- People with names: who may come in, on which devices they are, and what was done. Only hashes of what they know are kept.
create table people (
  id uuid primary key,
  name text not null,
  role text not null check (role in ('looker', 'builder', 'owner')),
  password text not null,
  pin text,
  active boolean not null default true,
  created timestamptz not null default now()
)
--;
create unique index people_name on people (lower(name))
--;
-- A device is signed in as one person at a time; those who signed in on it before may change to themselves by PIN.
create table sessions (
  token text primary key,
  device uuid not null,
  person uuid not null references people (id),
  made timestamptz not null default now(),
  seen timestamptz not null default now()
)
--;
create index sessions_person on sessions (person)
--;
create table device_people (
  device uuid not null,
  person uuid not null references people (id),
  primary key (device, person)
)
--;
create table invitations (
  id uuid primary key,
  token text not null unique,
  role text not null check (role in ('looker', 'builder', 'owner')),
  by_name text not null,
  until timestamptz not null,
  used text
)
--;
-- Words that were wrong, by what they were tried on: the wait grows with them.
create table attempts (
  key text primary key,
  failed integer not null,
  until timestamptz not null,
  last timestamptz not null
)
--;
create table audit (
  id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  who text not null,
  came_from text not null,
  did text not null,
  about text not null
)
--;
-- Keys of links that open something to whoever has them: in no archive.
create table links (
  what text primary key,
  key text not null
)
