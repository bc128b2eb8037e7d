-- The words of a text: what is written with hyphens is once one word and once several (`26-118` is found by `26-118` and by `118`).
create or replace function search_text(t text) returns tsvector language plpgsql immutable as $$
declare
  n text := search_norm(t);
begin
  if n like '%-%' then
    n := replace(n, '-', ' ') || ' ' || (select string_agg(replace(w, '-', ''), ' ') from regexp_split_to_table(n, '\s+') w where w like '%-%');
  end if;
  return to_tsvector('simple', n);
end $$;
