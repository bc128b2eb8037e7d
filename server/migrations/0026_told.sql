-- What somebody said of a job besides its steps: that a line of what is checked before the unit leaves may stay as it is, or that what a closed step did was
-- undone since. Evidence like a closing: never changed.
create table told (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  kind text not null check (kind in ('accepted', 'undone')),
  -- the line as `code id`, or the id of the closing
  subject text not null,
  reason text not null,
  by_person text not null references person (id),
  at timestamptz not null,
  entered bigint not null
);
create index told_job on told (job_id, id);
-- what a closing did is undone once; done again, it is another closing
create unique index told_undone_once on told (job_id, subject) where kind = 'undone';
create trigger told_stays before update or delete on told for each row execute function refuse_change();
create trigger told_whole before truncate on told for each statement execute function refuse_change();
create trigger told_sealed after insert or update on told for each row execute function seal_row('id', '');

-- How a drive ends that is not rebuilt, and what is kept of it for the one that takes its place. Null where nobody said it.
alter table approval add column ends text check (ends in ('boat', 'as-it-is', 'boxes', 'scrapped'));
alter table approval add column kept jsonb;

-- How the unit came, and which parts lay beside it. Null for one of which nobody said so.
alter table job_scope add column came text check (came in ('boat', 'off', 'opened', 'boxes'));
alter table job_scope add column lying jsonb;
