import type { JobDetail, JobWork } from '@moray/contract/replies'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { deriveFacts } from '@moray/core/route/job-facts'
import { schools } from '@moray/core/route/schools'
import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { vi } from 'vitest'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { useJob } from '../src/stores/jobs.ts'

/** A job as the server would send it, with as little in it as a test needs. */
export function fixtureJob(sheetId = 'lomvi-90', work: Partial<JobWork> = {}): JobDetail {
  const sheet = demoSheets.find((s) => s.id === sheetId)!
  const usual = Object.fromEntries(schools.map((s) => [`school.${s.id}`, s.usual]))
  const facts = deriveFacts(sheet, {
    'job.water': 'salt',
    ...usual,
    'row.missing': 20,
    'row.inside-left': 0,
    'row.left': 0,
    'grades.open': 9,
    ...work.facts,
  })
  return {
    id: 'job',
    number: '26-200',
    sheetId,
    sheetName: sheet.name,
    family: sheet.family,
    serial: 'S-1',
    boat: 'Boat',
    owner: 'Owner',
    water: 'salt',
    hours: 100,
    stand: null,
    state: 'received',
    stage: 'Receive',
    waitsFor: 'something',
    complaint: 'whine',
    openedAt: '2026-11-20T08:00:00.000Z',
    touchedAt: '2026-11-20T08:00:00.000Z',
    sheet,
    newerSheetVersion: null,
    builds: [],
    acceptance: null,
    pieces: [],
    events: [],
    work: {
      steps: [],
      drafts: [],
      row: [],
      grades: [],
      findings: [],
      outcome: null,
      history: [],
      edits: [],
      estimates: [],
      schools: [],
      attachments: [],
      heldReason: null,
      rules: { departuresNeedLead: false, rate: 950, consumables: 600, currency: 'kr' },
      ...work,
      facts,
    },
  }
}

export interface Sent {
  path: string
  body: Record<string, unknown>
}

/** Mounts a page's part with stores, router and a server that records what is sent and answers what it is told. */
export async function mountPart(
  component: Component,
  job: JobDetail,
  props: object = {},
  path = '/jobs/job/route',
): Promise<{
  wrapper: VueWrapper
  sent: Sent[]
  router: Router
  answer: (status: number, body: unknown) => void
}> {
  const sent: Sent[] = []
  let next: { status: number; body: unknown } = { status: 201, body: job }
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    if (init?.method === 'POST') sent.push({ path: url, body: JSON.parse(String(init.body)) as Sent['body'] })
    const { status, body } = init?.method === 'POST' ? next : { status: 200, body: [] }
    return Promise.resolve(new Response(JSON.stringify(body), { status }))
  })
  const pinia = createPinia()
  setActivePinia(pinia)
  useJob().set(job)
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { template: '<i />' } }],
  })
  await router.push(path)
  const wrapper = mount(component, {
    props: { job, ...props },
    global: { plugins: [pinia, PrimeVue, router], stubs: { teleport: true } },
    attachTo: document.body,
  })
  return { wrapper, sent, router, answer: (status, body) => (next = { status, body }) }
}

export const refusal = (code: string, path: string, message: string) => ({
  error: { code, message: path ? `${path}: ${message}` : message, fields: [{ path, message }] },
})
