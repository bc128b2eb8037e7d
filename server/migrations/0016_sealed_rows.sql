-- Every row of evidence is sealed by the event of the transaction that wrote it: row_seal keeps the row's digest, and the event's own seal
-- covers the digests. A row that was changed, deleted or put in behind Moray's back no longer fits; see server/src/data/check-seals.ts.

-- Wrong codes are counted for each device by itself: whoever guesses on one keeps nobody from his name on another.
create table code_tries (
  person_id text not null references person (id),
  device text not null,
  wrong integer not null,
  wait_until timestamptz,
  primary key (person_id, device)
);
alter table person drop column wrong_codes, drop column code_wait_until;
-- on one tablet several people may have said their codes
alter table person_session drop constraint person_session_pkey;
alter table person_session add primary key (token_hash, person_id);

-- Pictures are kept as they were made anew here, without what a camera writes beside them; `made` is false for those of an older Moray, which are made
-- anew each time they are shown. What the file was when it came is kept beside it.
alter table file add column made boolean;
alter table attachment add column came jsonb;
-- Files as they came, where a job may end before an insurer: kept, and never served.
create table original (
  hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
  job_id text not null references job (id),
  type text not null,
  bytes integer not null check (bytes > 0),
  at timestamptz not null
);
create trigger original_stays before update or delete on original for each row execute function refuse_change();
create trigger original_whole before truncate on original for each statement execute function refuse_change();
-- Contents of pictures and originals, on a PostgreSQL server, which several Morays share; an embedded database keeps them in files beside it.
create table file_content (
  hash text primary key,
  content bytea not null
);

create table row_seal (
  event_id bigint not null,
  n integer not null,
  table_name text not null,
  row_key text not null,
  -- null: the row was taken out
  digest text,
  primary key (event_id, n)
);
create index row_seal_row on row_seal (table_name, row_key, event_id desc, n desc);
create trigger row_seal_stays before update or delete on row_seal for each row execute function refuse_change();
create trigger row_seal_whole before truncate on row_seal for each statement execute function refuse_change();

-- What Moray writes by itself is nobody's.
alter table event alter column by_person drop not null;
-- digest of the row seals that this event covers
alter table event add column rows text;

create or replace function event_digest(prior text, e event) returns text language sql stable as $$
  select encode(sha256(convert_to(concat_ws('|', prior, e.id, extract(epoch from e.at), e.by_person, e.kind,
    coalesce(e.job_id, ''), e.subject, e.data::text, coalesce(e.text, ''), coalesce(e.clock_back_s, 0), e.rows), 'UTF8')), 'hex')
$$;

-- Digest of a row, whatever columns without a value are added to its table later.
create function row_digest(r jsonb) returns text language sql immutable as $$
  select encode(sha256(convert_to(jsonb_strip_nulls(r)::text, 'UTF8')), 'hex')
$$;

-- Remembers the digest of a row until the event that ends the transaction. Arguments: the columns of its key, and those that do not count; with
-- spaces between.
create function seal_row() returns trigger language plpgsql set timezone = 'UTC' as $$
declare
  r jsonb := to_jsonb(case when tg_op = 'DELETE' then old else new end);
  key text := (select string_agg(r ->> k, ' ' order by i) from unnest(string_to_array(tg_argv[0], ' ')) with ordinality as x(k, i));
begin
  perform set_config('moray.rows', coalesce(current_setting('moray.rows', true), '') ||
    tg_table_name || E'\t' || key || E'\t' || case when tg_op = 'DELETE' then '' else row_digest(r - string_to_array(tg_argv[1], ' ')) end || E'\n', true);
  return null;
end $$;

create or replace function seal_event() returns trigger language plpgsql as $$
declare
  last event%rowtype;
  written text := nullif(current_setting('moray.rows', true), '');
begin
  perform pg_advisory_xact_lock(hashtext('moray event ' || current_schema()));
  select * into last from event order by id desc limit 1;
  -- the number of an event that was cut off is not given out again: its rows are still sealed under it
  new.id := greatest(coalesce(last.id, 0), coalesce((select max(event_id) from row_seal), 0)) + 1;
  if last.at > new.at + interval '2 seconds' and current_setting('moray.history', true) is distinct from 'on' then
    new.clock_back_s := extract(epoch from last.at - new.at);
  end if;
  if written is not null then
    insert into row_seal (event_id, n, table_name, row_key, digest)
      select new.id, i, split_part(line, E'\t', 1), split_part(line, E'\t', 2), nullif(split_part(line, E'\t', 3), '')
      from string_to_table(rtrim(written, E'\n'), E'\n') with ordinality as x(line, i);
    new.rows := encode(sha256(convert_to(written, 'UTF8')), 'hex');
    perform set_config('moray.rows', '', true);
  end if;
  new.digest := event_digest(coalesce(last.digest, ''), new);
  perform pg_notify('moray_' || current_schema(),
    json_build_object('id', new.id, 'kind', new.kind, 'jobId', new.job_id)::text);
  return new;
end $$;

do $$
declare
  t text;
begin
  -- evidence: never changed, sealed when it is written
  foreach t in array array['build', 'stack', 'stack_piece', 'stack_superseded', 'reading', 'reading_superseded', 'acceptance', 'acceptance_withdrawn',
    'shim_movement', 'step_done', 'step_taken_back', 'grade', 'job_finding', 'fault_outcome', 'likelihood_edit', 'estimate', 'approval', 'job_school',
    'file', 'attachment', 'original', 'lead_agreement', 'gauge_calibration', 'drive_sheet', 'job_scope', 'open_item', 'open_item_closed', 'repair_loop',
    'job_unit', 'pattern_mark', 'pattern_mark_superseded'] loop
    execute format('create trigger %I after insert or update on %I for each row execute function seal_row(%L, %L)', t || '_sealed', t,
      (select string_agg(a.attname, ' ' order by k.i) from pg_index x, unnest(x.indkey) with ordinality as k(n, i)
       join pg_attribute a on a.attnum = k.n where x.indrelid = t::regclass and a.attrelid = t::regclass and x.indisprimary), '');
  end loop;
end $$;
-- what may change: sealed at every change, but for what is worked out or only remembers when
create trigger job_sealed after insert or update of number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, complaint, opened_at, held_reason
  on job for each row execute function seal_row('id', 'state stage waits touched_at route_hash');
create trigger person_sealed after insert or update on person for each row execute function seal_row('id', '');
create trigger gauge_sealed after insert or update on gauge for each row execute function seal_row('id', '');
create trigger shim_line_sealed after insert or update on shim_line for each row execute function seal_row('id', 'touched_at');
create trigger row_part_sealed after insert or update or delete on row_part for each row execute function seal_row('id', '');
create trigger device_sealed after insert or update of name, token_hash, paired_by, revoked_at, revoked_by on device
  for each row execute function seal_row('id', 'seen_at');
-- the id of the shop, whether it is the demo, and its epoch are written beside every event
create trigger setting_sealed after insert or update on setting for each row when (new.key not in ('shop', 'demo', 'epoch'))
  execute function seal_row('key', '');

-- Seals everything that stands, with one event of Moray's own: where rows were written before there were seals, or a migration has changed them.
create function seal_standing(the_time timestamptz, why text) returns void language plpgsql set timezone = 'UTC' as $$
declare
  t record;
  lines text;
  whole text := '';
begin
  for t in
    select c.relname as name, split_part(encode(g.tgargs, 'escape'), '\000', 1) as key, split_part(encode(g.tgargs, 'escape'), '\000', 2) as aside
    from pg_trigger g join pg_class c on c.oid = g.tgrelid
    where c.relnamespace = current_schema()::regnamespace and g.tgname = c.relname || '_sealed' and g.tgnargs = 2 order by c.relname
  loop
    execute format($q$
      select string_agg(%L || E'\t' || key || E'\t' || row_digest(r - string_to_array(%L, ' ')) || E'\n', '' order by key)
      from (select to_jsonb(x) as r, concat_ws(' ', %s) as key from %I x %s) y $q$,
      t.name, t.aside, (select string_agg(format('x.%I', k), ', ') from unnest(string_to_array(t.key, ' ')) k), t.name,
      case when t.name = 'setting' then $w$where x.key not in ('shop', 'demo', 'epoch')$w$ else '' end) into lines;
    whole := whole || coalesce(lines, '');
  end loop;
  if whole = '' then return; end if;
  perform set_config('moray.rows', whole, true);
  insert into event (at, by_person, kind, subject, data) values (the_time, null, 'shop', 'shop', jsonb_build_object('about', 'sealed', 'why', why));
end $$;

-- a time that is not before the last event's: the clock that the migration runs by is not the server's
select seal_standing(greatest(now(), (select max(at) from event)), 'rows of before there were seals') where exists (select 1 from event);
