-- Everything that is kept of one job, as the type JobRecord of core has it, and the ways of the shop that it is judged by.
-- It is always read by its id, so one plan fits all jobs; without plan_cache_mode the first five readings of every connection plan it anew.
create or replace function job_record(the_job text) returns table (record json, ways json)
language plpgsql stable set plan_cache_mode = force_generic_plan as $$
begin
  return query
  select json_build_object(
    'id', j.id, 'number', j.number, 'sheetId', j.sheet_id, 'sheetVersion', j.sheet_version,
    'newestSheetVersion', coalesce(
      (select max(n.version) from drive_sheet n where n.id = j.sheet_id and n.edition is not null), j.sheet_version),
    'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'water', j.water, 'hours', j.hours, 'stand', j.stand,
    'state', j.state, 'stage', j.stage, 'waits', j.waits, 'complaint', j.complaint, 'heldReason', j.held_reason,
    'openedAt', iso(j.opened_at), 'touchedAt', iso(j.touched_at), 'routeHash', j.route_hash,
    'builds', (
      select coalesce(json_agg(json_build_object(
        'id', b.id, 'number', b.number, 'by', p.name, 'at', iso(b.at),
        'plan', case when b.plan is not null
          then json_build_object('predicted', b.plan -> 'predicted', 'probability', b.plan -> 'probability') end,
        'acceptance', (
          select json_build_object('reason', a.reason, 'by', p.name, 'at', iso(a.at), 'entered', a.entered, 'signed', a.signed)
          from acceptance_standing t join acceptance a on a.id = t.acceptance_id join person p on p.id = a.by_person
          where t.build_id = b.id),
        'stacks', (
          select coalesce(json_agg(json_build_object(
            'id', s.id, 'location', s.location,
            -- a threaded carrier has no pieces, but a turn
            'thicknessMm', coalesce(s.turned_mm, pieces.mm, 0), 'pieces', coalesce(pieces.list, '[]'),
            'by', p.name, 'at', iso(s.at),
            'superseded', (
              select json_build_object('reason', x.reason, 'by', p.name, 'at', iso(x.at))
              from stack_superseded x join person p on p.id = x.by_person where x.stack_id = s.id)
          ) order by s.id), '[]')
          from stack s join person p on p.id = s.by_person
          left join lateral (
            -- what came out of the drawer keeps its line's number; what was thinned for this case belongs to the case
            select sum(q.thickness_mm order by q.position) as mm, json_agg(json_build_object(
              'id', case when q.from_drawer then 'd' || q.line_id else 'c' || coalesce(q.found_piece_id, q.id) end,
              'thicknessMm', q.thickness_mm, 'text', q.text,
              'origin', case when q.from_drawer then 'drawer' else 'case' end, 'thinned', q.thinned
            ) order by q.position) as list
            from (select *, line_id is not null and not thinned as from_drawer from stack_piece where stack_id = s.id) q
          ) pieces on true
          where s.build_id = b.id),
        'readings', (
          select coalesce(json_agg(json_build_object(
            'id', r.id, 'measure', r.measure, 'raw', r.raw, 'value', r.value, 'text', r.text, 'unit', r.unit,
            'gaugeId', r.gauge_id, 'gaugeName', g.name, 'gaugeOverdue', r.gauge_overdue,
            'gauge', json_build_object('resolution', r.resolution, 'mpe', r.mpe, 'repeatability', r.repeatability),
            'how', r.how, 'masterMm', r.master_mm, 'clockDeg', r.clock_deg, 'note', r.note, 'by', p.name, 'at', iso(r.at), 'entered', r.entered,
            'superseded', (
              select json_build_object('reason', x.reason, 'by', p.name, 'at', iso(x.at), 'replacedBy', x.replaced_by)
              from reading_superseded x join person p on p.id = x.by_person where x.reading_id = r.id)
          ) order by r.id), '[]')
          from reading r join person p on p.id = r.by_person join gauge g on g.id = r.gauge_id where r.build_id = b.id),
        'patterns', (
          select coalesce(json_agg(json_build_object(
            'id', m.id, 'mesh', m.mesh, 'flank', m.flank, 'place', m.place, 'outline', m.outline, 'note', m.note,
            'by', p.name, 'at', iso(m.at),
            'superseded', (
              select json_build_object('reason', x.reason, 'by', p.name, 'at', iso(x.at))
              from pattern_mark_superseded x join person p on p.id = x.by_person where x.mark_id = m.id)
          ) order by m.id), '[]')
          from pattern_mark m join person p on p.id = m.by_person where m.build_id = b.id)
      ) order by b.number), '[]')
      from build b join person p on p.id = b.by_person where b.job_id = j.id),
    'closings', (
      select coalesce(json_agg(json_build_object(
        'id', d.id, 'step', d.step, 'answers', d.answers, 'texts', d.texts, 'departedFrom', d.departed_from, 'reason', d.reason, 'undone', coalesce(d.undone, false),
        'lead', (select p.name from person p where p.id = d.lead), 'by', p.name, 'at', iso(d.at), 'entered', d.entered,
        'takenBack', (
          select json_build_object('reason', x.reason, 'by', p.name, 'at', iso(x.at), 'replacedBy', x.replaced_by)
          from step_taken_back x join person p on p.id = x.by_person where x.step_done_id = d.id)
      ) order by d.id), '[]')
      from step_done d join person p on p.id = d.by_person where d.job_id = j.id),
    'drafts', (
      select coalesce(json_agg(json_build_object(
        'step', t.step, 'answers', t.answers, 'begunAt', iso(t.begun_at), 'by', p.name, 'at', iso(t.at)) order by t.step), '[]')
      from step_draft t join person p on p.id = t.by_person where t.job_id = j.id),
    'row', (
      select coalesce(json_agg(json_build_object(
        'id', r.id, 'part', r.part, 'name', r.name, 'orientation', r.orientation, 'ink', r.ink, 'stack', r.stack, 'note', r.note,
        'offBy', p.name, 'offAt', iso(r.off_at),
        'fitted', case when r.fitted_by is not null and r.fitted_at is not null then json_build_object(
          'by', (select p.name from person p where p.id = r.fitted_by), 'at', iso(r.fitted_at), 'renewed', coalesce(r.renewed, false)) end,
        'leftOut', r.left_out
      ) order by r.position, r.id), '[]')
      from row_part r join person p on p.id = r.off_by where r.job_id = j.id),
    'grades', (
      select coalesce(json_agg(json_build_object(
        'id', g.id, 'part', g.part, 'grade', g.grade, 'reason', g.reason, 'seen', g.seen, 'measuredMm', g.measured_mm,
        'proposed', g.proposed, 'by', p.name, 'at', iso(g.at), 'entered', g.entered, 'superseded', g.id <> g.newest
      ) order by g.id), '[]')
      from (select *, max(id) over (partition by part) as newest from grade where job_id = j.id) g
      join person p on p.id = g.by_person),
    'findings', (
      select coalesce(json_agg(json_build_object(
        'finding', f.finding, 'present', f.present, 'by', p.name, 'at', iso(f.at)) order by f.finding), '[]')
      from (select distinct on (finding) * from job_finding where job_id = j.id order by finding, id desc) f
      join person p on p.id = f.by_person where f.present is not null),
    'outcome', (
      select json_build_object('cause', o.cause, 'note', o.note, 'by', p.name, 'at', iso(o.at))
      from fault_outcome o join person p on p.id = o.by_person where o.job_id = j.id order by o.id desc limit 1),
    'estimates', (
      select coalesce(json_agg(json_build_object(
        'id', e.id, 'body', e.body, 'by', p.name, 'at', iso(e.at), 'entered', e.entered,
        'approval', (
          select json_build_object('choice', a.choice, 'customer', a.customer, 'how', a.how, 'by', p.name, 'at', iso(a.at), 'entered', a.entered, 'ends', a.ends, 'kept', a.kept)
          from approval a join person p on p.id = a.by_person where a.estimate_id = e.id order by a.id desc limit 1)
      ) order by e.id), '[]')
      from estimate e join person p on p.id = e.by_person where e.job_id = j.id),
    'schools', (
      select coalesce(json_agg(json_build_object(
        'school', s.school, 'choice', s.choice, 'reason', s.reason, 'by', p.name, 'at', iso(s.at)) order by s.school), '[]')
      from (select distinct on (school) * from job_school where job_id = j.id order by school, id desc) s
      join person p on p.id = s.by_person),
    'attachments', (
      select coalesce(json_agg(json_build_object(
        'id', a.id, 'hash', a.hash, 'type', f.type, 'bytes', f.bytes, 'subject', a.subject, 'subjectId', a.subject_id,
        'note', a.note, 'by', p.name, 'at', iso(a.at)) order by a.id), '[]')
      from attachment a join file f on f.hash = a.hash join person p on p.id = a.by_person where a.job_id = j.id),
    'scopes', (
      select coalesce(json_agg(json_strip_nulls(json_build_object(
        'usual', s.usual, 'mode', s.mode, 'targets', s.targets, 'mounted', s.mounted, 'came', s.came, 'lying', s.lying, 'reason', s.reason,
        'by', p.name, 'at', iso(s.at))) order by s.id), '[]')
      from job_scope s join person p on p.id = s.by_person where s.job_id = j.id),
    'openItems', (
      select coalesce(json_agg(json_build_object(
        'id', o.id, 'text', o.text, 'by', p.name, 'at', iso(o.at),
        'closed', (
          select json_build_object('how', c.how, 'by', p.name, 'at', iso(c.at))
          from open_item_closed c join person p on p.id = c.by_person where c.open_item_id = o.id)
      ) order by o.id), '[]')
      from open_item o join person p on p.id = o.by_person where o.job_id = j.id),
    'loops', (
      select coalesce(json_agg(json_build_object(
        'number', l.number, 'why', l.why, 'targets', l.targets, 'note', l.note, 'by', p.name, 'at', iso(l.at), 'entered', l.entered) order by l.number), '[]')
      from repair_loop l join person p on p.id = l.by_person where l.job_id = j.id),
    'told', (
      select coalesce(json_agg(json_build_object(
        'id', t.id, 'kind', t.kind, 'subject', t.subject, 'reason', t.reason, 'by', p.name, 'at', iso(t.at), 'entered', t.entered) order by t.id), '[]')
      from told t join person p on p.id = t.by_person where t.job_id = j.id),
    'log', (
      select coalesce(json_agg(json_strip_nulls(json_build_object(
        'key', a.source_key, 'place', a.place, 'do', a.verb, 'on', a.object, 'fig', a.figures, 'sure', a.sure, 'write', a.entered)) order by a.entered, a.id), '[]')
      from act a where a.job_id = j.id and not exists (select 1 from act_struck s where s.act_id = a.id)),
    'partner', (
      select json_build_object(
        'id', o.id, 'number', o.number, 'sheetId', o.sheet_id, 'sheetName', u.other_name, 'follows', u.follows, 'facts', u.facts,
        'closings', (
          select coalesce(json_agg(json_build_object(
            'step', t.step, 'answers', d.answers, 'departedFrom', d.departed_from) order by d.id), '[]')
          from step_standing t join step_done d on d.id = t.step_done_id where t.job_id = o.id))
      from job_unit u join job o on o.id = u.other_id where u.job_id = j.id),
    'seen', (select coalesce(max(id), 0) from event)
  ),
  (select json_object_agg(key, value) from setting where key in ('schools', 'rules', 'stands'))
  from job j where j.id = the_job;
end $$;
