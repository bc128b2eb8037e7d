-- States of a job: held for a reason, and closed without a rebuild.
alter table job drop constraint job_state_check;
alter table job add constraint job_state_check
  check (state in ('received', 'teardown', 'setting', 'waiting', 'finished', 'reopened', 'working', 'held', 'closed'));
alter table job add column held_reason text;
-- One drive on a stand at a time, as long as it is being worked on.
create unique index job_on_stand on job (stand) where stand is not null and state not in ('finished', 'closed');

-- Steps of the route that were closed, with their answers. Evidence: taken back by a row in step_taken_back.
create table step_done (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  step text not null check (step <> ''),
  answers jsonb not null,
  -- numbers as they were typed, in bench notation
  texts jsonb not null default '{}',
  departed_from jsonb not null default '[]',
  reason text,
  lead text references person (id),
  by_person text not null references person (id),
  at timestamptz not null,
  check ((departed_from = '[]'::jsonb) = (reason is null))
);
create index step_done_job on step_done (job_id, id);
create table step_taken_back (
  step_done_id bigint primary key references step_done (id),
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);

-- Answers typed at a step that is not closed yet, so that an interruption loses nothing. Working state, not evidence.
create table step_draft (
  job_id text not null references job (id),
  step text not null,
  answers jsonb not null,
  -- when the first answer was given: a pressure test runs from there
  begun_at timestamptz not null,
  by_person text not null references person (id),
  at timestamptz not null,
  primary key (job_id, step)
);

-- The row on the bench: what came off, in which order, how it lay, and whether it has gone back. Order may be changed.
create table tray_part (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  part text,
  name text not null check (name <> ''),
  position double precision not null,
  orientation text,
  ink text,
  stack text,
  note text,
  off_by text not null references person (id),
  off_at timestamptz not null,
  fitted_by text references person (id),
  fitted_at timestamptz,
  left_out text,
  check ((fitted_by is null) = (fitted_at is null)),
  check (fitted_at is null or left_out is null),
  unique (job_id, part)
);

create table grade (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  part text not null,
  grade text not null check (grade in ('keep', 'keep-same', 'dress', 'replace', 'replace-set', 'send-out')),
  reason text not null check (reason <> ''),
  seen jsonb not null default '[]',
  measured_mm double precision,
  proposed text,
  by_person text not null references person (id),
  at timestamptz not null
);
create index grade_job on grade (job_id, part, id);

-- What was found, or looked for and not found; the newest of a finding counts.
create table job_finding (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  finding text not null,
  present boolean,
  by_person text not null references person (id),
  at timestamptz not null
);
create index job_finding_job on job_finding (job_id, id);
-- What it turned out to be; feeds the shop's own history.
create table fault_outcome (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  cause text not null,
  note text,
  by_person text not null references person (id),
  at timestamptz not null
);
create index fault_outcome_job on fault_outcome (job_id, id);
create table likelihood_edit (
  id bigint generated always as identity primary key,
  finding text not null,
  cause text not null,
  likelihood double precision check (likelihood between 0.005 and 0.995),
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);

-- An estimate as it was shown, and what the customer said to it.
create table estimate (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  body jsonb not null,
  by_person text not null references person (id),
  at timestamptz not null
);
create table approval (
  id bigint generated always as identity primary key,
  estimate_id bigint not null references estimate (id),
  choice text not null check (choice in ('rebuild', 'exchange', 'used', 'stop')),
  customer text not null check (customer <> ''),
  how text not null check (how <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);

-- A school that this job follows against the shop's.
create table job_school (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  school text not null,
  choice text not null,
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);

-- Pictures and files, by content; the bytes lie beside the database.
create table file (
  hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
  type text not null,
  bytes integer not null check (bytes > 0),
  at timestamptz not null
);
create table attachment (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  hash text not null references file (hash),
  subject text not null check (subject in ('step', 'part', 'grade', 'job')),
  subject_id text not null,
  note text,
  by_person text not null references person (id),
  at timestamptz not null
);
create index attachment_job on attachment (job_id, id);

create trigger step_done_stays before update or delete on step_done for each row execute function refuse_change();
create trigger step_taken_back_stays before update or delete on step_taken_back for each row execute function refuse_change();
create trigger grade_stays before update or delete on grade for each row execute function refuse_change();
create trigger job_finding_stays before update or delete on job_finding for each row execute function refuse_change();
create trigger fault_outcome_stays before update or delete on fault_outcome for each row execute function refuse_change();
create trigger likelihood_edit_stays before update or delete on likelihood_edit for each row execute function refuse_change();
create trigger estimate_stays before update or delete on estimate for each row execute function refuse_change();
create trigger approval_stays before update or delete on approval for each row execute function refuse_change();
create trigger job_school_stays before update or delete on job_school for each row execute function refuse_change();
create trigger file_stays before update or delete on file for each row execute function refuse_change();
create trigger attachment_stays before update or delete on attachment for each row execute function refuse_change();
