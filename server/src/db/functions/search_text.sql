-- A text as it is searched: small letters, a point in numbers and no zeros behind them (`.40` and `0,4` are the same), and what is written with hyphens
-- once as one word (`26-118` is found by `26-118` and by `118`).
create or replace function search_text(t text) returns text language sql immutable as $$
  select regexp_replace(n, '-', ' ', 'g') || ' ' || coalesce((select string_agg(replace(w, '-', ''), ' ') from regexp_split_to_table(n, ' +') w where w like '%-%'), '')
  from (select search_norm(t) as n) x
$$;
