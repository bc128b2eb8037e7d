import type { JobPage, JobSummary, Shop } from '@moray/contract/replies'
import { USUAL_WAYS } from '@moray/core/job/record'
import { VueQueryPlugin, type QueryClient } from '@tanstack/vue-query'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import BenchPage from '../src/bench/BenchPage.vue'
import ShopPage from '../src/shop/ShopPage.vue'
import { createQueries, keys } from '../src/wire/queries.ts'

afterEach(() => vi.unstubAllGlobals())

const shop: Shop = {
  ...USUAL_WAYS,
  rules: { ...USUAL_WAYS.rules, rate: 950, consumables: 600, currency: 'kr' },
  stands: ['Stand 1', 'Stand 2', 'Stand 3'],
  edits: [],
  found: {},
  demo: false,
}
const head = (n: number, more: Partial<JobSummary> = {}): JobSummary => ({
  id: `j${n}`,
  number: `26-${n}`,
  sheetId: 'teist-6',
  sheetName: 'Teist 6',
  family: 'small',
  serial: `S${n}`,
  boat: 'B',
  owner: 'O',
  water: 'salt',
  hours: null,
  stand: null,
  state: 'received',
  stage: 'receive',
  waits: { kind: 'nothing' },
  complaint: 'whine',
  openedAt: '2026-11-20T08:00:00.000Z',
  touchedAt: '2026-11-20T08:00:00.000Z',
  ...more,
})

/** A page with a server that answers reads by their path; undefined: it does not answer at all. */
async function open(
  page: Component,
  answer: (url: string) => unknown,
): Promise<{ wrapper: VueWrapper; client: QueryClient; router: Router }> {
  vi.stubGlobal('fetch', (url: string) => {
    // copies have tests of their own
    const body = url.startsWith('/api/copies') ? null : answer(url)
    return body === undefined
      ? Promise.reject(new TypeError('no network'))
      : Promise.resolve(new Response(JSON.stringify(body), { status: 200 }))
  })
  const client = createQueries()
  client.setDefaultOptions({ queries: { ...client.getDefaultOptions().queries, retry: false } })
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { template: '<i />' } }],
  })
  await router.push('/')
  const wrapper = mount(page, {
    global: { plugins: [createPinia(), PrimeVue, router, [VueQueryPlugin, { queryClient: client }]] },
  })
  await flushPromises()
  return { wrapper, client, router }
}
const shown = (w: VueWrapper) => w.findAll('a.job .mono').map((n) => n.text())
const button = (w: VueWrapper, name: string) => w.findAll('button').find((b) => b.text() === name)

describe('the bench', () => {
  const OPEN: JobPage = { jobs: [head(1, { stand: 'Stand 2' }), head(2)], next: 'p2', damaged: 0 }
  const pages = (url: string): JobPage | Shop => {
    if (url.startsWith('/api/shop')) return shop
    if (url.includes('before=p2')) return { jobs: [head(3)], next: null, damaged: 0 }
    return url.includes('state=over') ? { jobs: [], next: null, damaged: 0 } : OPEN
  }
  it('says which stands are free, and shows more open jobs on demand, which a change elsewhere does not hide', async () => {
    const { wrapper, client } = await open(BenchPage, pages)
    expect(wrapper.get('.page-head').text()).toContain('2 or more open jobs, free: Stand 1, Stand 3')
    expect(shown(wrapper)).toEqual(['26-1', '26-2'])
    await button(wrapper, 'Show more')!.trigger('click')
    await flushPromises()
    expect(shown(wrapper)).toEqual(['26-1', '26-2', '26-3'])
    expect(button(wrapper, 'Show more')).toBeUndefined()
    await client.invalidateQueries({ queryKey: keys.jobs })
    await flushPromises()
    expect(shown(wrapper)).toEqual(['26-1', '26-2', '26-3'])
  })
  it('says what went wrong when more is asked for, or a search is opened, and keeps what it shows', async () => {
    let down = false
    const { wrapper, router } = await open(BenchPage, (url) => (down ? undefined : pages(url)))
    down = true
    await button(wrapper, 'Show more')!.trigger('click')
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toContain('The server does not answer')
    expect(shown(wrapper)).toEqual(['26-1', '26-2'])
    down = false
    await button(wrapper, 'Show more')!.trigger('click')
    await flushPromises()
    expect(wrapper.find('[role=alert]').exists()).toBe(false)
    down = true
    await wrapper.get('form.search').trigger('submit')
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toContain('The server does not answer')
    expect(router.currentRoute.value.path).toBe('/')
    down = false
    await wrapper.get('form.search').trigger('submit')
    await flushPromises()
    expect(router.currentRoute.value.path).toBe('/jobs/j1/route')
  })
})

describe("the shop's rules", () => {
  it('keep what is being typed while others learn about faults, and follow when the rules themselves change', async () => {
    const { wrapper, client } = await open(ShopPage, (url) =>
      url.startsWith('/api/people') || url.startsWith('/api/devices') ? [] : shop,
    )
    const fields = () => wrapper.findAll('input').map((i) => i.element.value)
    const rate = wrapper.findAll('input').find((i) => i.element.value === String(shop.rules.rate))!
    await rate.setValue('1 234')
    client.setQueryData(keys.shop, { ...shop, found: { 'screw-gasket': 1 } })
    await flushPromises()
    expect(fields()).toContain('1 234')
    client.setQueryData(keys.shop, { ...shop, rules: { ...shop.rules, rate: 800 } })
    await flushPromises()
    expect(fields()).toContain('800')
    expect(fields()).not.toContain('1 234')
  })
})
