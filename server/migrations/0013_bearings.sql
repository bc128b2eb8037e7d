-- What sets a bearing is read like any other measure of a build: a torque in Nm, a crush in mm. What was read, and what is judged of it, is in the
-- unit of the measure; how it was taken (gap or float, drag of lips, run-in bearings, what was ticked, a swing) stands with it.
alter table reading rename column raw_mm to raw;
alter table reading rename column value_mm to value;
alter table reading add column how jsonb check (jsonb_typeof(how) = 'object');
alter table reading add column ticked jsonb not null default '[]' check (jsonb_typeof(ticked) = 'array');

-- The record of a job, whole again: that of 0010 with how far carriers are turned (0011), contact patterns (0012), and how readings were taken.
create or replace function job_record(the_job text) returns table (record json, ways json) language plpgsql stable as $$
begin
  return query
  select json_strip_nulls(json_build_object(
    'id', j.id, 'number', j.number, 'sheetId', j.sheet_id, 'sheetVersion', j.sheet_version,
    'newestSheetVersion', coalesce((select max(n.version) from drive_sheet n where n.id = j.sheet_id and n.edition is not null), j.sheet_version),
    'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'water', j.water, 'hours', j.hours, 'stand', j.stand,
    'state', j.state, 'stage', j.stage, 'waits', j.waits, 'complaint', j.complaint, 'heldReason', j.held_reason,
    'openedAt', iso(j.opened_at), 'touchedAt', iso(j.touched_at), 'routeHash', j.route_hash,
    'people', (select json_object_agg(p.id, p.name) from person p),
    'gauges', (select json_object_agg(g.id, g.name) from gauge g
               where g.id in (select r.gauge_id from reading r join build b on b.id = r.build_id where b.job_id = j.id)),
    'builds', (select json_agg(json_build_object('id', b.id, 'number', b.number, 'by', b.by_person, 'at', ms(b.at), 'plan', b.plan,
     'acceptance', (select json_build_array(a.reason, a.by_person, ms(a.at)) from acceptance_standing t join acceptance a on a.id = t.acceptance_id where t.build_id = b.id),
     'stacks', (select json_agg(json_build_array(s.id, s.location, s.by_person, ms(s.at), (select json_agg(json_build_array(case when sp.line_id is not null then 'd' || sp.line_id else 'c' || coalesce(sp.found_piece_id, sp.id) end, sp.thickness_mm, sp.text) order by sp.position) from stack_piece sp where sp.stack_id = s.id),
     (select json_build_array(x.reason, x.by_person, ms(x.at)) from stack_superseded x where x.stack_id = s.id), s.turned_mm) order by s.id) from stack s where s.build_id = b.id), 'readings', (select json_agg(json_build_array(r.id, r.measure, r.raw, case when r.value <> r.raw then r.value end, r.text, r.unit, r.gauge_id,
     r.gauge_overdue::int, r.resolution, r.mpe, r.repeatability, r.by_person, ms(r.at), nullif(jsonb_strip_nulls(jsonb_build_object('masterMm', r.master_mm, 'clockDeg', r.clock_deg, 'how', r.how, 'note', r.note, 'superseded',
        (select jsonb_build_array(x.reason, x.by_person, ms(x.at), x.replaced_by) from reading_superseded x where x.reading_id = r.id))), '{}')) order by r.id) from reading r where r.build_id = b.id), 'patterns', (select json_agg(json_build_array(m.id, m.mesh, m.flank, m.place, m.outline, m.note, m.by_person, ms(m.at),
     (select json_build_array(x.reason, x.by_person, ms(x.at)) from pattern_mark_superseded x where x.mark_id = m.id)) order by m.id) from pattern_mark m where m.build_id = b.id)) order by b.number) from build b where b.job_id = j.id),
    'closings', (select json_agg(json_build_array(d.id, d.step, d.by_person, ms(d.at), d.answers, nullif(jsonb_strip_nulls(jsonb_build_object('texts', nullif(d.texts, '{}'), 'departedFrom', nullif(d.departed_from, '[]'), 'reason', d.reason, 'lead', d.lead,
     'takenBack', (select jsonb_build_array(x.reason, x.by_person, ms(x.at), x.replaced_by) from step_taken_back x where x.step_done_id = d.id))), '{}')) order by d.id) from step_done d where d.job_id = j.id),
    'drafts', (select json_agg(json_build_object('step', t.step, 'answers', t.answers, 'begunAt', iso(t.begun_at), 'by', (select p.name from person p where p.id = t.by_person), 'at', iso(t.at)) order by t.step) from step_draft t where t.job_id = j.id),
    'row', (select json_agg(json_build_array(r.id, r.part, r.name, r.orientation, r.off_by, ms(r.off_at), r.fitted_by, ms(r.fitted_at),
       nullif(jsonb_strip_nulls(jsonb_build_object('ink', r.ink, 'stack', r.stack, 'note', r.note, 'leftOut', r.left_out, 'renewed', case when r.renewed then true end)), '{}')) order by r.position, r.id) from row_part r where r.job_id = j.id),
    'grades', (select json_agg(json_build_array(g.id, g.part, g.grade, g.reason, nullif(g.seen, '[]'), g.measured_mm,
       case when g.proposed = g.grade then '=' else g.proposed end, g.by_person, ms(g.at)) order by g.id) from grade g where g.job_id = j.id),
    'findings', (select json_agg(json_build_object('finding', f.finding, 'present', f.present, 'by', (select p.name from person p where p.id = f.by_person), 'at', iso(f.at)) order by f.finding) from (select distinct on (finding) * from job_finding where job_id = j.id order by finding, id desc) f
       where f.present is not null),
    'outcome', (select json_build_object('cause', o.cause, 'note', o.note, 'by', (select p.name from person p where p.id = o.by_person), 'at', iso(o.at))
                from fault_outcome o where o.job_id = j.id order by o.id desc limit 1),
    'estimates', (select json_agg(json_build_object('id', e.id, 'body', e.body, 'by', (select p.name from person p where p.id = e.by_person), 'at', iso(e.at),
       'approval', (select json_build_object('choice', a.choice, 'customer', a.customer, 'how', a.how,
                      'by', (select p.name from person p where p.id = a.by_person), 'at', iso(a.at))
                    from approval a where a.estimate_id = e.id order by a.id desc limit 1)) order by e.id) from estimate e where e.job_id = j.id),
    'schools', (select json_agg(json_build_object('school', s.school, 'choice', s.choice, 'reason', s.reason, 'by', (select p.name from person p where p.id = s.by_person), 'at', iso(s.at)) order by s.school) from (select distinct on (school) * from job_school where job_id = j.id order by school, id desc) s),
    'attachments', (select json_agg(json_build_object('id', a.id, 'hash', a.hash, 'type', f.type, 'bytes', f.bytes, 'subject', a.subject, 'subjectId', a.subject_id,
       'note', a.note, 'by', (select p.name from person p where p.id = a.by_person), 'at', iso(a.at)) order by a.id) from attachment a join file f on f.hash = a.hash where a.job_id = j.id),
    'scopes', (select json_agg(json_build_array(s.usual, s.mode, s.targets, s.mounted, s.reason, s.by_person, ms(s.at)) order by s.id) from job_scope s where s.job_id = j.id),
    'openItems', (select json_agg(json_build_array(o.id, o.text, o.by_person, ms(o.at),
       (select json_build_array(c.how, c.by_person, ms(c.at)) from open_item_closed c where c.open_item_id = o.id)) order by o.id) from open_item o where o.job_id = j.id),
    'loops', (select json_agg(json_build_array(l.number, l.why, l.targets, l.note, l.by_person, ms(l.at)) order by l.number) from repair_loop l where l.job_id = j.id),
    'partner', (select json_build_object('id', o.id, 'number', o.number, 'sheetId', o.sheet_id, 'sheetName', u.other_name, 'follows', u.follows,
       'facts', u.facts || coalesce((select jsonb_object_agg('done.' || t.step, true) from step_standing t join step_done d on d.id = t.step_done_id
          where t.job_id = o.id and d.departed_from = '[]' and not (d.answers::text like '%"~not-done%')), '{}'))
       from job_unit u join job o on o.id = u.other_id where u.job_id = j.id),
    'seen', (select coalesce(max(id), 0) from event)
  )) as record,
    (select json_object_agg(key, value) from setting where key in ('schools', 'rules', 'stands')) as ways
    from job j where j.id = the_job;
end $$;
