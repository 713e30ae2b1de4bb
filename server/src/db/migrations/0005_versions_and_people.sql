-- Every kept document says its format, so that it can be upgraded when it is read; every write says whose it is.
alter table builds add column format_version integer not null default 1
--;
-- What the board needs without looking into documents; surveyed: the format up to which a row was looked at.
alter table builds add column rechecks text not null default '[]'
--;
alter table builds add column unreadable text
--;
alter table builds add column surveyed integer not null default 0
--;
alter table builds add column who text not null default ''
--;
alter table build_versions add column format_version integer not null default 1
--;
alter table build_versions add column who text not null default ''
--;
alter table library add column format_version integer not null default 1
--;
alter table library_versions add column format_version integer not null default 1
--;
alter table library_versions add column who text not null default ''
--;
-- The ledger also takes decisions and signatures; which kinds there are is the schema's to say, once.
alter table ledger drop constraint ledger_kind_check
--;
alter table ledger add column format_version integer not null default 1
