-- Jobs that another Moray has written, as they came: read, searched, never changed.
create table foreign_job (
  id bigint generated always as identity primary key,
  -- of job.json as it came: the same record twice is one
  hash text not null,
  file jsonb not null,
  by_person text not null references person (id),
  at timestamptz not null,
  constraint foreign_job_once unique (hash)
);
create trigger foreign_job_stays before update or delete on foreign_job for each row execute function refuse_change();
create trigger foreign_job_whole before truncate on foreign_job for each statement execute function refuse_change();
create trigger foreign_job_sealed after insert or update on foreign_job for each row execute function seal_row('id', '');

-- What can be found again, a line for each thing that was said: made out of the rows that it was said in (search_lines.sql), and made again when they change.
create table search_line (
  id bigint generated always as identity primary key,
  -- one of these three
  job_id text,
  foreign_id bigint,
  drive_id text,
  kind text not null,
  ref text not null,
  text text not null,
  at timestamptz not null,
  -- its own words, and those with the number, boat, owner, serial and drive of what it belongs to
  own tsvector not null,
  words tsvector not null
);
create index search_line_own on search_line using gin (own) with (gin_pending_list_limit = 256);
create index search_line_words on search_line using gin (words) with (gin_pending_list_limit = 256);
-- one line for each job, foreign or not: what is asked for first
create index search_line_heads on search_line using gin (words) with (gin_pending_list_limit = 256) where kind = 'job';
create index search_line_job on search_line (job_id);
create index search_line_drive on search_line (drive_id) where drive_id is not null;
create index search_line_foreign on search_line (foreign_id) where foreign_id is not null;
-- How far it has been made: number of the newest event that is in it.
create table search_state (
  only_one boolean primary key default true check (only_one),
  event bigint not null
);
insert into search_state (event) values (0);

-- Jobs of a unit, of a drive and of an owner, the newest first.
create index job_unit_history on job (serial, sheet_id, opened_at desc);
create index job_opened on job (opened_at desc);
create index job_of_sheet on job (sheet_id, opened_at desc);
create index job_of_sheet_touched on job (sheet_id, touched_at desc, id);
create index job_owner on job (owner);

-- What the list on the Bench is searched by, made once and not at every look; it is no part of what is sealed.
drop trigger job_sealed on job;
alter table job add column found_by text
  generated always as (lower(number || ' ' || serial || ' ' || boat || ' ' || owner || ' ' || complaint || ' ')) stored;
create trigger job_sealed after insert or update of number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, complaint, opened_at, held_reason
  on job for each row execute function seal_row('id', 'state stage waits touched_at route_hash entered found_by');
