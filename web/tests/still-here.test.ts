import { mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { describe, expect, it } from 'vitest'
import { useStillHere } from '../src/ui/still-here.ts'

async function place() {
  let here!: () => () => boolean
  const Page = defineComponent({
    setup() {
      here = useStillHere()
      return () => h('p')
    },
  })
  let arrive!: () => void
  const far = new Promise<void>((done) => (arrive = done)).then(() => defineComponent(() => () => h('p')))
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: Page },
      { path: '/far', component: () => far },
    ],
  })
  await router.push('/')
  const page = mount(Page, { global: { plugins: [router] } })
  return { here, router, arrive, page }
}

describe('whoever waits for an answer', () => {
  it('is still here when he went nowhere, also the second time', async () => {
    const { here } = await place()
    expect(here()()).toBe(true)
    expect(here()()).toBe(true)
  })
  it('is not when he went elsewhere, not even while that place is still being loaded', async () => {
    const { here, router, arrive } = await place()
    const still = here()
    const going = router.push('/far')
    await new Promise((r) => setTimeout(r))
    expect(router.currentRoute.value.path).toBe('/')
    expect(still()).toBe(false)
    arrive()
    await going
    expect(here()()).toBe(true)
  })
  it('is not when he stayed on the page and turned to something else of it', async () => {
    const { here, router } = await place()
    const still = here()
    await router.replace({ query: { part: 'pinion' } })
    expect(still()).toBe(false)
  })
  it('is not when the page is gone', async () => {
    const { here, page } = await place()
    const still = here()
    page.unmount()
    expect(still()).toBe(false)
  })
})
