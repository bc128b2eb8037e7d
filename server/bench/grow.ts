import type { Database } from '../src/db/database.ts'

/** Adds copies of a finished job, with everything that belongs to it. @param options.readings of each one that it has */
export async function grow(
  db: Database,
  from: number,
  to: number,
  { readings }: { readings: number } = { readings: 2 },
): Promise<void> {
  // as many at a time as one statement takes with ease
  for (let first = from; first < to; first += 1000)
    await growBy(db, first, Math.min(to, first + 1000), readings)
}

async function growBy(db: Database, from: number, to: number, readings: number) {
  await db.script(`
    set session_replication_role = replica;
    insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, state, stage, waits, complaint, opened_at, touched_at, route_hash)
      select 'g' || n, 'g-' || n, sheet_id, sheet_version, 'G' || (n % 700), boat || ' ' || (n % 300), owner, water, hours, null,
        case when n % 50 = 0 then 'working' else 'finished' end, case when n % 50 = 0 then 'set' else 'done' end, waits, complaint,
        opened_at - n * interval '1 hour', touched_at - n * interval '1 hour', route_hash
      from job, generate_series(${from}, ${to - 1}) n where id = 'lomvi-done';
    insert into build (job_id, number, plan, by_person, at)
      select 'g' || n, number, plan, by_person, at from build, generate_series(${from}, ${to - 1}) n where job_id = 'lomvi-done';
    insert into acceptance (build_id, by_person, at)
      select b.id, b.by_person, b.at from build b where b.job_id like 'g%' and b.number = 1 and not exists (select 1 from acceptance a where a.build_id = b.id);
    insert into acceptance_standing (build_id, acceptance_id) select a.build_id, a.id from acceptance a join build b on b.id = a.build_id where b.job_id like 'g%' and not exists (select 1 from acceptance_standing t where t.build_id = a.build_id);
    insert into reading (build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe, repeatability, by_person, at)
      select b.id, r.measure, r.raw, r.value, r.text, r.unit, r.gauge_id, r.gauge_overdue, r.resolution, r.mpe, r.repeatability, r.by_person, r.at
      from build b, (select r.* from reading r join build x on x.id = r.build_id where x.job_id = 'lomvi-done') r, generate_series(1, ${readings})
      where b.job_id like 'g%' and not exists (select 1 from reading y where y.build_id = b.id);
    insert into stack (build_id, location, by_person, at)
      select b.id, s.location, s.by_person, s.at from build b join (select s.*, x.number from stack s join build x on x.id = s.build_id where x.job_id = 'lomvi-done') s on s.number = b.number
      where b.job_id like 'g%' and not exists (select 1 from stack y where y.build_id = b.id);
    insert into stack_piece (stack_id, position, thickness_mm, text, line_id)
      select s.id, 0, 0.4, '.40', 's003' from stack s join build b on b.id = s.build_id where b.job_id like 'g%' and not exists (select 1 from stack_piece p where p.stack_id = s.id);
    insert into step_done (job_id, step, answers, by_person, at)
      select 'g' || n, step, answers, by_person, at from step_done, generate_series(${from}, ${to - 1}) n where job_id = 'lomvi-done';
    insert into fault_outcome (job_id, cause, by_person, at) select 'g' || n, 'screw-gasket', 'runa', now() from generate_series(${from}, ${to - 1}) n;
    insert into job_finding (job_id, finding, present, by_person, at) select 'g' || n, f, true, 'runa', now() from generate_series(${from}, ${to - 1}) n, unnest(array['metal', 'milky-oil']) f;
    insert into event (id, at, by_person, kind, job_id, subject, data, digest)
      select (select max(id) from event) + row_number() over (), at, by_person, kind, 'g' || n, subject, data, digest from event, generate_series(${from}, ${to - 1}) n where job_id = 'lomvi-done';
    set session_replication_role = origin;
    analyze`)
}
