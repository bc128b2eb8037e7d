import { defineAsyncComponent, type Component } from 'vue'

/** Results that people would rather look at than read, by the name of the calculation; each loaded when it is first shown. */
export const pictures: Record<string, Component> = {
  judge: defineAsyncComponent(() => import('./JudgePicture.vue')),
  runout: defineAsyncComponent(() => import('../../charts/RunoutPlot.vue')),
  'leak-test': defineAsyncComponent(() => import('./LeakPicture.vue')),
  'tooth-contact': defineAsyncComponent(() => import('./ContactPicture.vue')),
  'pattern-read': defineAsyncComponent(() => import('./PatternPicture.vue')),
  'lock-alignment': defineAsyncComponent(() => import('./TabsPicture.vue')),
  'torque-adapter': defineAsyncComponent(() => import('./WrenchPicture.vue')),
  'torque-order': defineAsyncComponent(() => import('./StarPicture.vue')),
  preload: defineAsyncComponent(() => import('./PreloadPicture.vue')),
}
