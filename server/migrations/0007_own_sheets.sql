-- Drives of one's own: drafts that change until they are published, versions that never change.
create table drive (
  id text primary key
);
insert into drive (id) select distinct id from drive_sheet;

-- A version with an edition is published, and counted so; one without is what jobs work on meanwhile.
alter table drive_sheet add column edition integer;
alter table drive_sheet add column note text not null default '';
alter table drive_sheet add column by_person text references person (id);
alter table drive_sheet add column at timestamptz;
update drive_sheet set edition = version;
create unique index drive_sheet_edition_once on drive_sheet (id, edition);
alter table drive_sheet add constraint drive_sheet_of_drive foreign key (id) references drive (id);
create trigger drive_sheet_stays before update or delete on drive_sheet for each row execute function refuse_change();
create trigger drive_sheet_whole before truncate on drive_sheet for each statement execute function refuse_change();

-- The next version of a sheet, as far as it is typed: one for a drive.
create table sheet_draft (
  id text primary key references drive (id),
  body jsonb not null,
  by_person text not null references person (id),
  at timestamptz not null
);

-- The record of a job (0005): a newer sheet is one that is published.
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
     (select json_build_array(x.reason, x.by_person, ms(x.at)) from stack_superseded x where x.stack_id = s.id)) order by s.id) from stack s where s.build_id = b.id), 'readings', (select json_agg(json_build_array(r.id, r.measure, r.raw_mm, case when r.value_mm <> r.raw_mm then r.value_mm end, r.text, r.unit, r.gauge_id,
     r.gauge_overdue::int, r.resolution, r.mpe, r.repeatability, r.by_person, ms(r.at), nullif(jsonb_strip_nulls(jsonb_build_object('masterMm', r.master_mm, 'clockDeg', r.clock_deg, 'note', r.note, 'superseded',
        (select jsonb_build_array(x.reason, x.by_person, ms(x.at), x.replaced_by) from reading_superseded x where x.reading_id = r.id))), '{}')) order by r.id) from reading r where r.build_id = b.id)) order by b.number) from build b where b.job_id = j.id),
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
    'seen', (select coalesce(max(id), 0) from event)
  )) as record,
    (select json_object_agg(key, value) from setting where key in ('schools', 'rules', 'stands')) as ways
    from job j where j.id = the_job;
end $$;
