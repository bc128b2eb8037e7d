import { createRouter, createWebHistory } from 'vue-router'
import BenchPage from './bench/BenchPage.vue'
import { moduleGone } from './wire/stale-page.ts'

/** The Bench is what Moray opens with; every other page comes when it is looked at. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: BenchPage, meta: { title: 'Bench' } },
    {
      path: '/jobs/:id',
      component: () => import('./job/JobPage.vue'),
      props: true,
      children: [
        { path: '', redirect: (to) => `/jobs/${String(to.params.id)}/route` },
        { path: 'route', component: () => import('./job/RoutePage.vue'), meta: { title: 'Route' } },
        {
          path: 'scope',
          component: () => import('./job/scope/ScopePage.vue'),
          meta: { title: 'Scope' },
        },
        { path: 'setting', component: () => import('./job/SettingPage.vue'), meta: { title: 'Setting' } },
        {
          path: 'contact',
          component: () => import('./job/contact/ContactPage.vue'),
          meta: { title: 'Contact' },
        },
        { path: 'parts', component: () => import('./job/PartsPage.vue'), meta: { title: 'Parts' } },
        { path: 'faults', component: () => import('./job/FaultsPage.vue'), meta: { title: 'Faults' } },
        { path: 'schools', component: () => import('./job/SchoolsPage.vue'), meta: { title: 'Schools' } },
        { path: 'sheet', component: () => import('./job/SheetPage.vue'), meta: { title: 'Step sheet' } },
        { path: 'before', component: () => import('./job/BeforePage.vue'), meta: { title: 'Before' } },
        { path: 'record', component: () => import('./job/RecordPage.vue'), meta: { title: 'Record' } },
      ],
    },
    { path: '/boats', component: () => import('./boats/BoatsPage.vue'), meta: { title: 'Boats' } },
    {
      path: '/boats/:sheet/:serial',
      component: () => import('./past/UnitPage.vue'),
      props: true,
      meta: { title: 'Unit' },
    },
    {
      path: '/foreign/:id',
      component: () => import('./boats/ForeignPage.vue'),
      props: true,
      meta: { title: 'Record' },
    },
    { path: '/find', component: () => import('./find/FindPage.vue'), meta: { title: 'Find' } },
    { path: '/drawer', component: () => import('./drawer/DrawerPage.vue'), meta: { title: 'Drawer' } },
    { path: '/pair', component: () => import('./shop/PairPage.vue'), meta: { title: 'Pair' } },
    { path: '/shop', component: () => import('./shop/ShopPage.vue'), meta: { title: 'Shop' } },
    { path: '/gauges', component: () => import('./gauges/GaugesPage.vue'), meta: { title: 'Gauges' } },
    { path: '/drives', component: () => import('./drives/DrivesPage.vue'), meta: { title: 'Drives' } },
    {
      path: '/drives/:id',
      component: () => import('./drives/DrivePage.vue'),
      props: true,
      meta: { title: 'Drive' },
    },
    {
      path: '/drives/:id/draft',
      component: () => import('./drives/own/DraftPage.vue'),
      props: true,
      meta: { title: 'Sheet' },
    },
    {
      path: '/drives/:id/compare',
      component: () => import('./drives/own/ComparePage.vue'),
      props: true,
      meta: { title: 'Versions' },
    },
    {
      path: '/sums/:name?',
      component: () => import('./sums/SumsPage.vue'),
      props: true,
      meta: { title: 'Sums' },
    },
    { path: '/:rest(.*)*', component: () => import('./bench/LostPage.vue'), meta: { title: 'Not here' } },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title ?? 'Moray')} · Moray`
})

/** How browsers say that a part of the page could not be fetched. */
const NOT_FETCHED = /dynamically imported module|importing a module script|preload CSS/i
// after an upgrade the parts of an open page have other names on the server: a click that does nothing must say why
router.onError((e: unknown, to) => {
  if (e instanceof Error && NOT_FETCHED.test(e.message)) moduleGone(to.fullPath)
})
