-- A time as it stands in every reply: ISO 8601 in UTC, to the millisecond.
create or replace function iso(t timestamptz) returns text language sql stable as $$
  select to_char(t at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')
$$;
