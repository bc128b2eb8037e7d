-- One word for one thing: the row on the bench.
alter table tray_part rename to row_part;
alter table row_part rename constraint tray_part_job_id_part_key to row_part_once;

create function iso(t timestamptz) returns text language sql stable as $$
  select to_char(t at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')
$$;

create function ms(t timestamptz) returns bigint language sql stable as $$
  select (extract(epoch from t) * 1000)::bigint
$$;

-- Events: kind, subject and data; the sentence is made when it is shown. Old ones keep theirs.
alter table event alter column text drop not null;
alter table event add column subject text not null default '';
alter table event add column data jsonb not null default '{}';
-- seconds by which the clock had run back when this was written
alter table event add column clock_back_s double precision;
-- each event seals the one before
alter table event add column digest text;
alter table event alter column id drop identity;

create function event_digest(prior text, e event) returns text language sql stable as $$
  select encode(sha256(convert_to(concat_ws('|', prior, e.id, extract(epoch from e.at), e.by_person, e.kind,
    coalesce(e.job_id, ''), e.subject, e.data::text, coalesce(e.text, ''), coalesce(e.clock_back_s, 0)), 'UTF8')), 'hex')
$$;

alter table event disable trigger event_stays;
do $$
declare
  e event%rowtype;
  prior text := '';
begin
  for e in select * from event order by id loop
    prior := event_digest(prior, e);
    update event set digest = prior where id = e.id;
  end loop;
end $$;
alter table event enable trigger event_stays;
alter table event alter column digest set not null;

-- Numbers events in the order in which they are committed, without gaps: whoever has seen number n has seen all before it. The lock is held to
-- the end of the transaction, so events come last in it. Told to all servers on this database when it is committed.
create function seal_event() returns trigger language plpgsql as $$
declare
  last event%rowtype;
begin
  perform pg_advisory_xact_lock(hashtext('moray event ' || current_schema()));
  select * into last from event order by id desc limit 1;
  new.id := coalesce(last.id, 0) + 1;
  if last.at > new.at + interval '2 seconds' and current_setting('moray.history', true) is distinct from 'on' then
    new.clock_back_s := extract(epoch from last.at - new.at);
  end if;
  new.digest := event_digest(coalesce(last.digest, ''), new);
  perform pg_notify('moray_' || current_schema(),
    json_build_object('id', new.id, 'kind', new.kind, 'jobId', new.job_id)::text);
  return new;
end $$;
create trigger event_sealed before insert on event for each row execute function seal_event();
create index event_kind on event (kind, id);

-- Requests by the sender's id: enough to know a repeated one. Pruned after a day.
drop table request_log;
create table request_log (
  id text primary key,
  route text not null,
  body_hash text not null,
  status integer not null,
  subject text not null,
  event_id bigint,
  at timestamptz not null
);
create index request_log_at on request_log (at);

-- What a step said and asked when it was closed; null where an older Moray did not keep it.
alter table step_done add column asked jsonb;
-- The closing of a step that counts: one at a time, whoever comes second.
create table step_standing (
  job_id text not null references job (id),
  step text not null,
  step_done_id bigint not null unique references step_done (id),
  constraint step_closed_once primary key (job_id, step)
);
insert into step_standing (job_id, step, step_done_id)
  select d.job_id, d.step, max(d.id) from step_done d
  where not exists (select 1 from step_taken_back b where b.step_done_id = d.id) group by d.job_id, d.step;

-- The lead agrees to a departure, in a request of his own.
create table lead_agreement (
  id bigint generated always as identity primary key,
  job_id text not null references job (id),
  step text not null,
  reason text not null check (reason <> ''),
  by_person text not null references person (id),
  at timestamptz not null
);
create index lead_agreement_job on lead_agreement (job_id, step, id);
create trigger lead_agreement_stays before update or delete on lead_agreement for each row execute function refuse_change();

-- Which steps a route had when somebody last looked at it, by content.
create table route_print (
  hash text primary key,
  steps jsonb not null
);
alter table job add column route_hash text references route_print (hash);

-- What a job waits for, as data; the stage by its id.
alter table job add column waits jsonb not null default '{"kind": "nothing"}';
update job set waits = jsonb_build_object('kind', 'said', 'text', waits_for);
update job set stage = case stage
  when 'Receive' then 'receive' when 'Receiving' then 'receive' when 'Take apart' then 'teardown' when 'Inspect' then 'inspect'
  when 'Parts' then 'parts' when 'Press and seal' then 'seal' when 'Set' then 'set' when 'Close' then 'close' when 'Tight' then 'tight'
  when 'Put back' then 'join' when 'Finish' then 'finish' when 'Setting' then 'setting' when 'Handed over' then 'done'
  when 'Closed' then 'closed' else stage end;
alter table job drop column waits_for;
create index job_touched on job (touched_at desc, id desc);
create index job_serial on job (serial, opened_at desc);

-- Names and family of a sheet without reading its body.
alter table drive_sheet add column name text generated always as (body ->> 'name') stored;
alter table drive_sheet add column family text generated always as (body ->> 'family') stored;

-- Numbers that are given out one by one: an update that locks its row, never max() + 1.
create table counter (
  name text primary key,
  last integer not null
);
insert into counter (name, last)
  select 'job ' || left(number, 2), max(substring(number from 4)::int) from job where number ~ '^[0-9]{2}-[0-9]+$' group by left(number, 2);
insert into counter (name, last) select 'line', max(substring(id from 2)::int) from shim_line where id ~ '^s[0-9]+$' having count(*) > 0;
-- one line of a thickness at a place
create unique index shim_line_once on shim_line (place, round(thickness_mm::numeric, 6));

create index stack_piece_line on stack_piece (line_id) where line_id is not null;
create index estimate_job on estimate (job_id, id);
create index approval_estimate on approval (estimate_id, id);
create index job_school_job on job_school (job_id, id);
create index attachment_hash on attachment (hash);
create index shim_movement_job on shim_movement (job_id) where job_id is not null;

-- Evidence cannot be emptied either.
do $$
declare t text;
begin
  foreach t in array array['build', 'stack', 'stack_piece', 'reading', 'stack_superseded', 'reading_superseded', 'acceptance', 'event',
    'shim_movement', 'step_done', 'step_taken_back', 'grade', 'job_finding', 'fault_outcome', 'likelihood_edit', 'estimate', 'approval',
    'job_school', 'file', 'attachment', 'lead_agreement'] loop
    execute format('create trigger %I before truncate on %I for each statement execute function refuse_change()', t || '_whole', t);
  end loop;
end $$;
