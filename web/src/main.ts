import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import App from './App.vue'
import './look/fonts.css'
import './look/look.css'
import { morayPreset } from './look/preset.ts'
import { router } from './router.ts'
import { loadBodies } from './wire/client.ts'
import { startLive } from './wire/live-line.ts'
import { createQueries } from './wire/queries.ts'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? ''

const queryClient = createQueries()
createApp(App)
  .use(VueQueryPlugin, { queryClient })
  .use(createPinia())
  .use(router)
  .use(PrimeVue, {
    csp: { nonce },
    theme: { preset: morayPreset, options: { darkModeSelector: '.night', cssLayer: { name: 'primevue' } } },
  })
  .mount('#app')
startLive(queryClient)

// what checks a body before it is sent comes with the first page where something is written, on the Bench with the first touch: it is there before it is
// needed, and a server that goes away in between does not keep it back
const prepareToWrite = () => void loadBodies().catch(() => undefined)
router.afterEach((to) => to.path !== '/' && prepareToWrite())
for (const touch of ['pointerdown', 'keydown']) addEventListener(touch, prepareToWrite, { once: true })
