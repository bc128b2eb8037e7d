-- What was done to a unit, act by act, as it was claimed on the day: never worked out again from the steps of a later Moray. The number under which the write
-- is entered in the log of the unit orders them, and the place within it.
create table act (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  entered bigint not null,
  place integer not null,
  -- the closing, tap, reading or grade that it comes from
  source_key text not null,
  verb text not null,
  object text not null,
  figures jsonb,
  by_person text references person (id),
  entered_at timestamptz not null,
  happened_at timestamptz not null,
  sure text not null check (sure in ('seen', 'said', 'inferred')),
  source text not null,
  -- what the object was called on that day
  words text not null,
  constraint act_once unique (job_id, source_key, place)
);
create index act_job on act (job_id, entered, place);
create trigger act_stays before update or delete on act for each row execute function refuse_change();
create trigger act_whole before truncate on act for each statement execute function refuse_change();
create trigger act_sealed after insert or update on act for each row execute function seal_row('id', '');

-- An act that never happened, or was otherwise: what it came from was taken back or put right. It stays to be read. What was undone is neither: that is an act
-- of its own.
create table act_struck (
  act_id bigint primary key references act (id),
  -- the act that says how it really was; null where it never happened
  changed_to bigint references act (id),
  by_person text references person (id),
  at timestamptz not null
);
create trigger act_struck_stays before update or delete on act_struck for each row execute function refuse_change();
create trigger act_struck_whole before truncate on act_struck for each statement execute function refuse_change();
create trigger act_struck_sealed after insert or update on act_struck for each row execute function seal_row('act_id', '');
