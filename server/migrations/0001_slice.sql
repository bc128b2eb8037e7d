-- People who work here. Every write names one of them.
create table person (
  id text primary key,
  name text not null check (name <> ''),
  role text not null check (role in ('technician', 'lead'))
);

-- Drive sheets are versioned; a job keeps the version it was opened with.
create table drive_sheet (
  id text not null,
  version integer not null check (version >= 1),
  body jsonb not null,
  primary key (id, version)
);

create table gauge (
  id text primary key,
  name text not null,
  type text not null,
  measures text not null,
  resolution double precision not null check (resolution > 0),
  mpe double precision not null check (mpe >= 0),
  repeatability double precision not null check (repeatability >= 0),
  unit text not null,
  per_turn_mm double precision check (per_turn_mm > 0),
  masters jsonb not null default '[]',
  calibrated_on date not null,
  interval_months integer not null check (interval_months between 1 and 120)
);

create table job (
  id text primary key,
  number text not null unique,
  sheet_id text not null,
  sheet_version integer not null,
  serial text not null,
  boat text not null,
  owner text not null,
  water text not null check (water in ('salt', 'brackish', 'fresh')),
  hours integer check (hours >= 0),
  stand text,
  state text not null check (state in ('received', 'teardown', 'setting', 'waiting', 'finished', 'reopened')),
  stage text not null,
  waits_for text not null,
  complaint text not null,
  opened_at timestamptz not null,
  touched_at timestamptz not null,
  foreign key (sheet_id, sheet_version) references drive_sheet (id, version)
);

-- One state of the gearcase: number 0 as found, then a trial each time it is built up again.
create table build (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  number integer not null check (number >= 0),
  plan jsonb,
  by_person text not null references person (id),
  at timestamptz not null,
  unique (job_id, number)
);

create table stack (
  id bigint generated always as identity primary key,
  build_id bigint not null references build (id),
  location text not null,
  by_person text not null references person (id),
  at timestamptz not null
);
create index stack_build on stack (build_id);

create table shim_line (
  id text primary key,
  place text not null,
  thickness_mm double precision not null check (thickness_mm > 0 and thickness_mm <= 50),
  text text not null,
  count integer not null,
  touched_at timestamptz not null,
  constraint stock_not_negative check (count >= 0)
);

-- A piece of a stack. Found pieces belong to the case; a trial's piece names a drawer line or a found piece.
create table stack_piece (
  id bigint generated always as identity primary key,
  stack_id bigint not null references stack (id),
  position integer not null,
  thickness_mm double precision not null check (thickness_mm > 0),
  text text not null,
  line_id text references shim_line (id),
  found_piece_id bigint references stack_piece (id),
  check (line_id is null or found_piece_id is null)
);
create index stack_piece_stack on stack_piece (stack_id);

create table reading (
  id bigint generated always as identity primary key,
  build_id bigint not null references build (id),
  measure text not null,
  raw_mm double precision not null,
  value_mm double precision not null,
  text text not null,
  unit text not null,
  gauge_id text not null references gauge (id),
  gauge_overdue boolean not null,
  resolution double precision not null,
  mpe double precision not null,
  repeatability double precision not null,
  master_mm double precision,
  clock_deg double precision,
  note text,
  by_person text not null references person (id),
  at timestamptz not null
);
create index reading_build on reading (build_id);

-- Evidence is never edited: a row here says that an entry no longer counts, and why.
create table stack_superseded (
  stack_id bigint primary key references stack (id),
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);
create table reading_superseded (
  reading_id bigint primary key references reading (id),
  replaced_by bigint references reading (id),
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);

create table acceptance (
  id bigint generated always as identity primary key,
  build_id bigint not null unique references build (id),
  reason text,
  by_person text not null references person (id),
  at timestamptz not null
);

create table event (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  by_person text not null references person (id),
  kind text not null,
  job_id text references job (id),
  text text not null
);
create index event_job on event (job_id, id);

create table shim_movement (
  id bigint generated always as identity primary key,
  line_id text not null references shim_line (id),
  kind text not null check (kind in ('start', 'add', 'count', 'correct', 'reserve', 'return')),
  delta integer not null,
  reason text not null,
  job_id text references job (id),
  by_person text not null references person (id),
  at timestamptz not null
);
create index shim_movement_line on shim_movement (line_id, id);

-- Answers to writes, by the sender's request id: a retry after a lost reply writes nothing twice.
create table request_log (
  id text primary key,
  route text not null,
  status integer not null,
  reply jsonb not null,
  at timestamptz not null
);

create table setting (
  key text primary key,
  value jsonb not null
);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'rows of % are evidence: superseded, never changed or deleted', tg_table_name
    using errcode = 'restrict_violation';
end $$;

create trigger build_stays before update or delete on build for each row execute function refuse_change();
create trigger stack_stays before update or delete on stack for each row execute function refuse_change();
create trigger stack_piece_stays before update or delete on stack_piece for each row execute function refuse_change();
create trigger reading_stays before update or delete on reading for each row execute function refuse_change();
create trigger stack_superseded_stays before update or delete on stack_superseded for each row execute function refuse_change();
create trigger reading_superseded_stays before update or delete on reading_superseded for each row execute function refuse_change();
create trigger acceptance_stays before update or delete on acceptance for each row execute function refuse_change();
create trigger event_stays before update or delete on event for each row execute function refuse_change();
create trigger shim_movement_stays before update or delete on shim_movement for each row execute function refuse_change();
