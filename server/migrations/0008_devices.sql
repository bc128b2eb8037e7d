-- Devices beyond the machine itself: paired once with a code that a known one shows, revocable.
create table device (
  id bigint generated always as identity primary key,
  name text not null,
  token_hash text not null unique,
  paired_by text not null references person (id),
  paired_at timestamptz not null,
  seen_at timestamptz not null,
  revoked_at timestamptz,
  revoked_by text references person (id)
);
create table device_pairing (
  code_hash text primary key,
  by_person text not null references person (id),
  at timestamptz not null,
  used_at timestamptz
);

-- A code of four digits, where the shop wants one; who has said it on a device is known there for a while.
alter table person add column code_hash text;
alter table person add column wrong_codes integer not null default 0;
alter table person add column code_wait_until timestamptz;
create table person_session (
  token_hash text primary key,
  person_id text not null references person (id),
  at timestamptz not null,
  ends_at timestamptz not null
);
create index person_session_of on person_session (person_id);
