-- Numbers an event, seals the rows that its transaction wrote, chains it to the event before it, and tells whoever listens.
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
