-- What was said in a job, a line for each: who it is, notes, answers, stacks, grades, parts, open items, approvals, pictures.
create or replace function search_lines(the_job text)
  returns table (kind text, ref text, said text, at timestamptz) language sql stable as $$
  select 'stack', s.location || ' ' || b.number, format('%s %s mm · %s in = %s', s.location, trim_scale(round((coalesce(s.turned_mm, 0) + sum(p.thickness_mm))::numeric, 3)),
      trim_scale(round((sum(p.thickness_mm) / 25.4)::numeric, 4)), string_agg(p.text, ' + ' order by p.position)), s.at
    from build b join stack s on s.build_id = b.id join stack_piece p on p.stack_id = s.id
    where b.job_id = the_job and not exists (select 1 from stack_superseded x where x.stack_id = s.id) group by s.id, b.number
  union all
  select 'reading', r.measure, concat_ws(' ', r.measure, r.text, r.note), r.at from build b join reading r on r.build_id = b.id where b.job_id = the_job and r.note <> ''
  union all
  select 'answer', d.step, concat_ws(' ', coalesce(d.asked ->> 'what', d.step), (select string_agg(v #>> '{}', ' ') from jsonb_each(d.answers) e (k, v)
      where jsonb_typeof(v) in ('string', 'number')), d.reason), d.at
    from step_done d where d.job_id = the_job
  union all
  select 'note', 'note', e.data ->> 'text', e.at from event e where e.job_id = the_job and e.kind = 'note' and e.data ->> 'text' is not null
  union all
  select 'open-item', o.id::text, concat_ws(' ', o.text, c.how), o.at from open_item o left join open_item_closed c on c.open_item_id = o.id where o.job_id = the_job
  union all
  -- what was sound, and what only lay in the row, is the same in every job
  select 'grade', g.part, concat_ws(' ', coalesce((select name from row_part r where r.job_id = the_job and r.part = g.part), g.part), g.grade, g.reason), g.at
    from grade g where g.job_id = the_job and g.grade <> 'keep'
  union all
  select 'part', coalesce(r.part, ''), concat_ws(' ', r.name, r.note, r.left_out), r.off_at from row_part r where r.job_id = the_job
    and (r.note <> '' or r.left_out <> '' or r.part is null)
  union all
  select 'outcome', o.cause, concat_ws(' ', o.cause, o.note), o.at from fault_outcome o where o.job_id = the_job
  union all
  select 'approval', a.choice, concat_ws(' ', a.customer, a.how), a.at from approval a join estimate e on e.id = a.estimate_id where e.job_id = the_job
  union all
  select 'picture', t.hash, t.note, t.at from attachment t where t.job_id = the_job and t.note is not null
$$;
