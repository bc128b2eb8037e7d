import type { DriveSheet } from '@moray/core/drives/sheet'
import type { BuildState, GaugeSpec } from '@moray/core/setting/taken'
import { experienceOf } from '@moray/core/setting/experience'
import type { PieceCut } from '@moray/core/setting/shim-problem'
import type { Experience } from '@moray/core/setting/with-experience'
import type { Queryable, Transaction } from '../db/database.ts'

/** Units that are looked back at: the newest; older ones were set with other eyes. */
const MOST_UNITS = 16

interface UnitRow {
  builds: {
    stacks: Record<string, number> | null
    readings: [string, number, number, number, number][] | null
  }[]
}

/** One row of json: the builds of every accepted unit of a sheet, the newest first. Parameters: sheet, a job that is left out, how many. */
const unitsOf = (sheet: string, without: string, most: string) => `(select json_agg(u.builds) from (
    select (select json_agg(json_build_object(
         'stacks', (select json_object_agg(s.location, coalesce(s.turned_mm, (select sum(p.thickness_mm) from stack_piece p where p.stack_id = s.id)))
                    from stack s where s.build_id = b.id and not exists (select 1 from stack_superseded x where x.stack_id = s.id)),
         'readings', (select json_agg(json_build_array(r.measure, r.value, r.resolution, r.mpe, r.repeatability) order by r.id)
                      from reading r where r.build_id = b.id and not exists (select 1 from reading_superseded x where x.reading_id = r.id)))
         order by b.number) from build b where b.job_id = j.id) as builds
    from job j where j.sheet_id = ${sheet} and j.id <> ${without}
      and exists (select 1 from build b join acceptance_standing t on t.build_id = b.id where b.job_id = j.id)
    order by j.touched_at desc, j.id limit ${most}) u)`

const taught = (sheet: DriveSheet, units: UnitRow['builds'][] | null): Experience | undefined =>
  experienceOf(
    sheet,
    (units ?? []).map((builds) => builds.map(stateOf)),
  )

/** What the accepted units of a sheet teach about the next one. @param without a job that is being worked on */
export async function experienceWith(
  db: Queryable,
  sheet: DriveSheet,
  without: string,
): Promise<Experience | undefined> {
  const [row] = await db.query<{ units: UnitRow['builds'][] | null }>(
    `select ${unitsOf('$1', '$2', '$3')} as units`,
    [sheet.id, without, MOST_UNITS],
  )
  return taught(sheet, row!.units)
}

/** A line of the drawer that is held. */
export interface HeldLine {
  id: string
  thicknessMm: number
  count: number
  cut?: PieceCut
}

/**
 * The lines of the drawer with these ids, held until the commit in one order, so that two jobs cannot take the last piece together; and what
 * accepted units teach. Together, since a write has few statements.
 */
export async function heldLinesAndExperience(
  tx: Transaction,
  ids: string[],
  sheet: DriveSheet,
  without: string,
): Promise<{ lines: HeldLine[]; experience: Experience | undefined }> {
  const [row] = await tx.query<{ lines: HeldLine[] | null; units: UnitRow['builds'][] | null }>(
    `with held as (select id, thickness_mm, count, cut from shim_line where id = any($4) order by id for update)
     select (select json_strip_nulls(json_agg(json_build_object('id', id, 'thicknessMm', thickness_mm, 'count', count, 'cut', cut) order by id)) from held) as lines,
       ${unitsOf('$1', '$2', '$3')} as units`,
    [sheet.id, without, MOST_UNITS, ids],
  )
  return { lines: row!.lines ?? [], experience: taught(sheet, row!.units) }
}

function stateOf({ stacks, readings }: UnitRow['builds'][number]): BuildState {
  const byMeasure: Record<string, { value: number; gauge: GaugeSpec }[]> = {}
  for (const [measure, value, resolution, mpe, repeatability] of readings ?? [])
    (byMeasure[measure] ??= []).push({ value, gauge: { resolution, mpe, repeatability } })
  return { stacks: stacks ?? {}, readings: byMeasure }
}
