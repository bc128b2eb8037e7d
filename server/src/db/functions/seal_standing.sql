-- Seals everything that stands, with one event of Moray's own: after a migration has written rows.
create or replace function seal_standing(the_time timestamptz, why text) returns void language plpgsql set timezone = 'UTC' as $$
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
