import { expect, type Page } from '@playwright/test'
import type { JobReply, Shop } from '@moray/contract/replies'
import { shimAdjusters, type DriveSheet } from '@moray/core/drives/sheet'
import { isCondemned } from '@moray/core/job/bench-row'
import { ungraded } from '@moray/core/job/job-plan'
import { judged, type JudgedJob } from '@moray/core/job/judged'
import { criteria, propose } from '@moray/core/inspection/criteria'
import { baseOf } from '@moray/core/route/occurrence'
import type { Ask } from '@moray/core/route/route'
import type { StepProgress } from '@moray/core/route/progress'
import { carefulAnswers } from '@moray/core/simulation/careful-hand'
import { typedReading } from '@moray/core/simulation/shown-by-gauge'
import { trueReading, virtualCase } from '@moray/core/simulation/virtual-case'
import { NOWHERE, show } from '../pages.ts'

/** A careful hand at a browser: it knows what its case reads, and does the rest on the pages. */

const random = () => 0.5
/** The server ends a connection that idled; a request that meets that very moment is sent again. A write carries its id, so it counts once. */
const AGAIN = { maxRetries: 5 }
export const panel = (page: Page) => page.locator('.panel')

const get = async <T>(page: Page, path: string) => (await (await page.request.get(path, AGAIN)).json()) as T

/** A version of a sheet never changes: asked for once. */
const sheets = new Map<string, Promise<DriveSheet>>()
function sheetOf(page: Page, { sheetId, sheetVersion }: JobReply): Promise<DriveSheet> {
  const path = `/api/drives/${sheetId}/versions/${sheetVersion}`
  const sheet = sheets.get(path) ?? get<DriveSheet>(page, path)
  sheets.set(path, sheet)
  return sheet
}

const shopOf = (page: Page) => get<Shop>(page, '/api/shop')
const judge = async (page: Page, reply: JobReply, shop: Shop): Promise<JudgedJob> =>
  judged(reply, await sheetOf(page, reply), shop, new Date())

/** The job as the page judges it. */
export async function jobOf(page: Page, id: string): Promise<JudgedJob> {
  const [reply, shop] = await Promise.all([get<JobReply>(page, `/api/jobs/${id}`), shopOf(page)])
  return judge(page, reply, shop)
}

export async function post(page: Page, path: string, data: object, person = 'ylva') {
  const reply = await page.request.post(path, {
    ...AGAIN,
    data,
    headers: { 'x-moray-person': person, 'x-moray-request': crypto.randomUUID() },
  })
  return { status: reply.status(), body: (await reply.json()) as JobReply & { error?: { message: string } } }
}

/** A job of its own for a test. @returns its id */
export async function openJob(page: Page, sheetId: string, scope: object | undefined, more: object = {}) {
  const { status, body } = await post(page, '/api/jobs', {
    sheetId,
    serial: `E-${crypto.randomUUID().slice(0, 8)}`,
    boat: 'Prøvebåten',
    owner: 'Strandvik Boat Pool, own fleet',
    water: 'brackish',
    complaint: 'For the test',
    ...(scope ? { scope } : {}),
    ...more,
  })
  expect(status, JSON.stringify(body)).toBe(201)
  return body.id
}

export const rightAnswers = (job: JudgedJob, step: StepProgress['step']) =>
  carefulAnswers({ gearcase: virtualCase(job.sheet, random), random }, step, job.facts)

/**
 * Does on the server what comes before, so that a test begins where it wants to. Stops with the step open. Whoever is at the job leaves it: nobody
 * looks on while a route is walked in seconds.
 */
export async function fastTo(page: Page, id: string, until: string): Promise<JudgedJob> {
  await show(page, NOWHERE)
  const shop = await shopOf(page)
  let job = await judge(page, await get<JobReply>(page, `/api/jobs/${id}`), shop)
  for (let n = 0; n < 400; n++) {
    const { due } = job.progress
    if (!due || due.step.id === until) return job
    const send = async (path: string, body: object) => {
      const { status, body: reply } = await post(page, `/api/jobs/${id}${path}`, body)
      expect(status, `${due.step.id} ${path} ${JSON.stringify(reply.error ?? '')}`).toBe(201)
      job = await judge(page, reply, shop)
    }
    if (due.state === 'open') {
      await send('/steps', { step: due.step.id, answers: rightAnswers(job, due.step) })
      continue
    }
    switch (due.step.page) {
      case 'row':
        if (['apart', 'prop-off'].includes(baseOf(due.step.id))) {
          const off = new Set(job.row.map((r) => r.part))
          const next = job.plan.off.find((p) => !off.has(p.id) && p.after.every((a) => off.has(a)))!
          await send('/row', { part: next.id, orientation: 'as it lay' })
        } else {
          const lying = job.row.findLast((r) => !r.fitted && r.leftOut === null)!
          await send(`/row/${lying.id}`, { act: 'fit', renewed: isCondemned(job.grades, lying.part) })
        }
        break
      case 'grades': {
        const [part] = ungraded(job, job.sheet, job.plan, true)
        const seen = [criteria[part!.kind][0]!.id]
        await send('/grades', { part: part!.id, ...propose(part!.kind, seen)!, seen })
        break
      }
      case 'estimate':
        await send('/estimates', { rate: 950, consumables: 600 })
        await send('/approvals', {
          estimateId: job.estimates.at(-1)!.id,
          choice: 'rebuild',
          customer: 'The owner',
          how: 'in writing',
        })
        break
      case 'setting':
        await setFast(job, due, send)
        break
      default:
        throw new Error(`nothing opens ${due.step.id}: ${due.why.join(' ')}`)
    }
  }
  throw new Error(`${until} was never due`)
}

/** Enters the stacks as found; else reads all that is asked, and takes it as it is. */
async function setFast(
  job: JudgedJob,
  due: StepProgress,
  send: (path: string, body: object) => Promise<void>,
) {
  const gearcase = virtualCase(job.sheet, random)
  if (due.step.id === 'shims') {
    for (const a of shimAdjusters(job.sheet))
      await send('/stacks', {
        location: a.id,
        unit: 'mm',
        pieces: [{ text: `${gearcase.stacks[a.id]!.toFixed(3)} mm` }],
      })
    return
  }
  const newest = job.builds.at(-1)!
  // what was read and accepted before the case was bare is how it was found: the rebuild is a trial
  if (newest.acceptance || (newest.kind === 'found' && newest.readings.length)) {
    return send('/trials', { fromBuild: newest.number, stacks: [] })
  }
  const { number, asked, readings, state } = newest
  for (const m of asked) {
    const truth = trueReading(gearcase, m.id, { ...gearcase.stacks, ...state.stacks })
    for (let i = readings.filter((r) => r.measure === m.id).length; i < m.readings; i++)
      await send('/readings', {
        build: number,
        ...typedReading(m, truth, m.kind === 'seat' ? state.stacks[m.by] : undefined),
      })
  }
  await send('/acceptance', { build: number, reason: 'taken as it is, for the test' })
}

/** As somebody types it: no more digits than his gauge shows, and no more letters than it takes. */
const typedAs = ({ kind }: Pick<Ask, 'kind'>, value: string | number | boolean): string =>
  kind === 'number' ? String(Number(Number(value).toPrecision(3))) : kind === 'text' ? 'good' : String(value)

/** Gives the answers of the step that is shown, each as a hand would. @returns how many */
export async function answerShown(page: Page, job: JudgedJob, step: StepProgress['step']): Promise<number> {
  const right = rightAnswers(job, step)
  let given = 0
  for (const ask of step.asks) {
    const value = right[ask.fact]
    // what may be left out is left out, but a careful hand reads the thermometer with its gauge
    const warm = worked.reads && ask.kind === 'number' && ask.quantity === 'temperature'
    if (value === undefined || (ask.optional && !warm)) continue
    const field = panel(page).locator(`.ask[data-fact="${ask.fact}"]`)
    if (ask.kind === 'choice') {
      const label = ask.options.find((o) => o.value === value)!.label
      await field.getByText(label, { exact: true }).click()
    } else if (ask.kind === 'list')
      for (const v of String(value).split(' ').filter(Boolean))
        await field.getByText(ask.options.find((o) => o.value === v)!.label, { exact: true }).click()
    else await field.locator('input, textarea').first().fill(typedAs(ask, value))
    given++
  }
  return given
}

/** Works on the pages from what is due until a step is, or to the end. @returns answers given on the route */
export async function workTo(page: Page, id: string, until?: string): Promise<number> {
  let answers = 0
  for (let n = 0; n < 200; n++) {
    const job = await jobOf(page, id)
    const { due } = job.progress
    if (!due || due.step.id === until) return answers
    if (due.state === 'open') {
      if (!page.url().endsWith(`/jobs/${id}/route`)) await show(page, `/jobs/${id}/route`)
      await expect(panel(page).getByRole('heading', { name: due.step.what, exact: true })).toBeVisible()
      answers += await answerShown(page, job, due.step)
      const closed = page.waitForResponse(
        (r) => r.url().endsWith('/steps') && r.request().method() === 'POST',
      )
      await panel(page)
        .getByRole('button', { name: /[Nn]ext step/ })
        .click()
      expect((await closed).status(), due.step.id).toBe(201)
      continue
    }
    await elsewhere(page, id, job, due)
  }
  throw new Error(`${until ?? 'the end'} was never reached`)
}

/** How often another page of a job was gone to, and come back from; whether the hand reads a thermometer that it is not asked for. */
export const worked = { visits: 0, reads: true }

/** What a step waits for on another page of the job. */
async function elsewhere(page: Page, id: string, job: JudgedJob, due: StepProgress): Promise<void> {
  worked.visits++
  switch (due.step.page) {
    case 'row': {
      await show(page, `/jobs/${id}/parts?view=row`)
      if (['apart', 'prop-off'].includes(baseOf(due.step.id))) {
        const lying = new Set(job.row.map((r) => r.part))
        for (const part of job.plan.off) {
          if (lying.has(part.id)) continue
          // with the last one the row turns to building back, and asks for nothing more
          const laid = page.waitForResponse(
            (r) => r.url().endsWith('/row') && r.request().method() === 'POST',
          )
          await page.getByRole('button', { name: `${part.name} is off`, exact: true }).click()
          expect((await laid).status(), part.name).toBe(201)
        }
        return
      }
      await page.getByText('building back').click()
      for (let left = job.row.filter((r) => !r.fitted).length; left > 0; left--) {
        const answered = page.waitForResponse((r) => /\/row\/\d+$/.test(r.url()) && r.ok())
        await page
          .getByRole('region', { name: 'Next to go in' })
          .getByRole('button', { name: /is in$/ })
          .click()
        await answered
      }
      return
    }
    case 'grades':
      for (const part of ungraded(job, job.sheet, job.plan, true)) {
        await show(page, `/jobs/${id}/parts?view=grades&part=${part.id}`)
        await page.getByText(criteria[part.kind][0]!.label, { exact: true }).click()
        const answered = page.waitForResponse((r) => r.url().endsWith('/grades') && r.ok())
        await page.getByRole('button', { name: /Grade it/ }).click()
        await answered
      }
      return
    case 'estimate': {
      await show(page, `/jobs/${id}/parts?view=estimate`)
      const made = page.waitForResponse((r) => r.url().endsWith('/estimates') && r.ok())
      await page.getByRole('button', { name: /Make the estimate|Make it anew/ }).click()
      await made
      await page.locator('.decision').getByText('rebuild', { exact: false }).first().click()
      await page.getByLabel('How it was said').fill('phone')
      const decided = page.waitForResponse((r) => r.url().endsWith('/approvals') && r.ok())
      await page.getByRole('button', { name: 'Record the decision' }).click()
      await decided
      return
    }
    default:
      throw new Error(`nothing opens ${due.step.id}: ${due.why.join(' ')}`)
  }
}
