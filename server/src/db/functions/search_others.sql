-- Lines of what is no job of this shop: parts on the newest sheet of each drive, and records of other shops that have none yet.
create or replace function search_others() returns void language plpgsql as $$
begin
  delete from search_line where drive_id is not null;
  insert into search_line (drive_id, kind, ref, text, at, own, words)
    select d.id, 'drive-part', p ->> 'id', concat_ws(' · ', p ->> 'name', p ->> 'number'), coalesce(d.at, 'epoch'),
      search_text(concat_ws(' ', p ->> 'name', p ->> 'number')), search_text(concat_ws(' ', p ->> 'name', p ->> 'number', d.name))
    from (select distinct on (id) * from drive_sheet order by id, version desc) d,
      -- parts, and the loose pieces of groups of fasteners
      lateral (select jsonb_array_elements(d.body -> 'parts') as p union all select jsonb_path_query(d.body, '$.groups[*].pieces[*]')) parts
    where p ->> 'name' <> '';
  insert into search_line (foreign_id, kind, ref, text, at, own, words)
    select f.id, l.kind, l.ref, l.said, f.at, search_text(l.said), search_text(concat_ws(' ', l.said, f.head))
    from (select id, at, file, concat_ws(' ', file #>> '{job,number}', file #>> '{job,serial}', file #>> '{job,boat}', file #>> '{job,owner}', file #>> '{sheet,name}') as head
      from foreign_job where not exists (select 1 from search_line s where s.foreign_id = foreign_job.id)) f,
    lateral (
      select 'job' as kind, '' as ref, concat_ws(' · ', f.head, f.file #>> '{job,complaint}') as said
      union all
      select 'stack', concat_ws(' ', s ->> 'location', b ->> 'number'), concat_ws(' ', s ->> 'location', trim_scale(round((s ->> 'thicknessMm')::numeric, 4)), '=',
          (select string_agg(p ->> 'text', ' + ') from jsonb_array_elements(s -> 'pieces') p))
        from jsonb_array_elements(f.file #> '{job,builds}') b, jsonb_array_elements(b -> 'stacks') s
      union all
      select 'answer', c ->> 'step', concat_ws(' ', c #>> '{asked,what}', (select string_agg(v #>> '{}', ' ') from jsonb_each(c -> 'answers') e (k, v) where jsonb_typeof(v) in ('string', 'number')))
        from jsonb_array_elements(f.file -> 'closings') c
    ) l where l.said <> '';
end $$;
