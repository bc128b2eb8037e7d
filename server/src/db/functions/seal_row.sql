-- Remembers the digest of a row until the event that ends the transaction.
-- Arguments: the columns of its key, and those that do not count; with spaces between.
create or replace function seal_row() returns trigger language plpgsql set timezone = 'UTC' as $$
declare
  r jsonb := to_jsonb(case when tg_op = 'DELETE' then old else new end);
  key text := (select string_agg(r ->> k, ' ' order by i) from unnest(string_to_array(tg_argv[0], ' ')) with ordinality as x(k, i));
begin
  perform set_config('moray.rows', coalesce(current_setting('moray.rows', true), '') ||
    tg_table_name || E'\t' || key || E'\t' || case when tg_op = 'DELETE' then '' else row_digest(r - string_to_array(tg_argv[1], ' ')) end || E'\n', true);
  return null;
end $$;
