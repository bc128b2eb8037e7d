import { doneSteps } from '@moray/core/job/closings'
import { judged } from '@moray/core/job/judged'
import { USUAL_WAYS, type JobRecord } from '@moray/core/job/record'
import { demoSheets } from '@moray/core/drives/sheets/index'
import type { Facts } from '@moray/core/route/facts'
import { deriveFacts } from '@moray/core/route/job-facts'
import { progressOf } from '@moray/core/route/progress'
import { VueQueryPlugin, type QueryClient } from '@tanstack/vue-query'
import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { vi } from 'vitest'
import { defineComponent, h, type Component } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { provideShown, type ShownJob } from '../src/job/shown-job.ts'
import { createQueries, keys } from '../src/wire/queries.ts'

const NOW = new Date('2026-11-25T10:00:00.000Z')
const at = '2026-11-20T08:00:00.000Z'

/** What a test says of a job beside what every job has. */
export type Given = Partial<Omit<JobRecord, 'id'>> & {
  facts?: Facts
  history?: ShownJob['history']
  edits?: ShownJob['edits']
}

/** A job as a page shows it, with as little in it as a test needs: parts still in the case, grades still open. */
export function fixtureJob(
  sheetId = 'lomvi-90',
  { facts: said, history, edits, ...given }: Given = {},
): ShownJob {
  const sheet = demoSheets.find((s) => s.id === sheetId)!
  const record: JobRecord = {
    id: 'job',
    number: '26-200',
    sheetId,
    sheetVersion: sheet.version,
    newestSheetVersion: sheet.version,
    serial: 'S-1',
    boat: 'Boat',
    owner: 'Owner',
    water: 'salt',
    hours: 100,
    stand: null,
    state: 'received',
    stage: 'receive',
    waits: { kind: 'nothing' },
    complaint: 'whine',
    openedAt: at,
    touchedAt: at,
    heldReason: null,
    routeHash: null,
    builds: [
      {
        id: 1,
        number: 0,
        by: 'Ylva',
        at,
        stacks: [],
        readings: [],
        patterns: [],
        plan: null,
        acceptance: null,
      },
    ],
    closings: [],
    drafts: [],
    row: [],
    grades: [],
    findings: [],
    outcome: null,
    estimates: [],
    schools: [],
    attachments: [],
    scopes: [],
    openItems: [],
    loops: [],
    partner: null,
    seen: 1,
    ...given,
  }
  const rules = { ...USUAL_WAYS.rules, rate: 950, consumables: 600, currency: 'kr' }
  const job = judged(record, sheet, { ...USUAL_WAYS, rules }, NOW)
  const facts = deriveFacts(sheet, {
    ...job.facts,
    'row.missing': 20,
    'row.inside-left': 0,
    'row.left': 0,
    'grades.open': 9,
    ...said,
  })
  return {
    ...job,
    facts,
    progress: progressOf(job.route, facts, doneSteps(record.closings)),
    pieces: [],
    history: history ?? [],
    edits: edits ?? [],
  }
}

/** The least that a write can answer. */
const REPLY = { id: 'job', seen: 2, builds: [], sheetId: '', sheetVersion: 1 }
/** What a step was closed with stands in the answer. */
const closedAs = (sent: Sent | undefined) => ({
  ...REPLY,
  closings: [{ step: sent?.body.step, takenBack: null }],
})

export interface Sent {
  path: string
  body: Record<string, unknown>
}

/** A page that holds one panel and does its writes, as the real page does. @param wiring props and listeners that the page gives the panel */
export const pageWith = (panel: Component, wiring: () => object) =>
  defineComponent({
    inheritAttrs: false,
    setup(_, { attrs }) {
      const wired = wiring()
      return () => h(panel, { ...attrs, ...wired })
    },
  })

/** Mounts a page's part with stores, router and a server that records what is sent and answers what it is told. */
export async function mountPart(
  component: Component,
  job: ShownJob,
  props: object = {},
  path = '/jobs/job/route',
): Promise<{
  wrapper: VueWrapper
  sent: Sent[]
  router: Router
  client: QueryClient
  answer: (status: number, body: unknown) => void
}> {
  const sent: Sent[] = []
  let next: { status: number; body: unknown } | undefined
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    if (init?.method === 'POST') sent.push({ path: url, body: JSON.parse(String(init.body)) as Sent['body'] })
    const { status, body } =
      init?.method === 'POST'
        ? (next ?? { status: 201, body: closedAs(sent.at(-1)) })
        : { status: 200, body: url.endsWith('/last-built') ? null : [] }
    return Promise.resolve(new Response(JSON.stringify(body), { status }))
  })
  localStorage.setItem('moray.person', 'ylva')
  const pinia = createPinia()
  setActivePinia(pinia)
  const client = createQueries()
  client.setQueryData(keys.people, [{ id: 'ylva', name: 'Ylva', role: 'technician' }])
  client.setQueryData(keys.job(job.id), { ...REPLY, seen: 1, drafts: job.drafts } as unknown as JobRecord)
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { template: '<i />' } }],
  })
  await router.push(path)
  const [key, open] = provideShown({ job, error: null, load: () => Promise.resolve() })
  const wrapper = mount(component, {
    props: { job, ...props },
    global: {
      plugins: [[VueQueryPlugin, { queryClient: client }], pinia, PrimeVue, router],
      provide: { [key as symbol]: open },
      stubs: { teleport: true },
    },
    attachTo: document.body,
  })
  return { wrapper, sent, router, client, answer: (status, body) => (next = { status, body }) }
}

export const refusal = (code: string, path: string, message: string) => ({
  error: { code, message: path ? `${path}: ${message}` : message, fields: [{ path, message }] },
})
