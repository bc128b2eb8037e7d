import { computed, type ComputedRef } from 'vue'
import { useShop } from '../stores/shop.ts'

export interface Ink {
  ink: string
  soft: string
  line: string
  lamp: string
  in: string
  out: string
  font: string
}

/** The look's colours for a canvas, which knows no CSS variables; anew when day and night change. */
export function useInk(): ComputedRef<Ink> {
  const shop = useShop()
  return computed(() => {
    // read for its dependency: the variables change with the class on the root
    void shop.night
    const root = document.documentElement
    root.classList.toggle('night', shop.night)
    const style = getComputedStyle(root)
    const of = (name: string) => style.getPropertyValue(name).trim()
    return {
      ink: of('--ink'),
      soft: of('--ink-soft'),
      line: of('--line'),
      lamp: of('--lamp'),
      in: of('--in'),
      out: of('--out'),
      font: of('--font'),
    }
  })
}

/** An axis of numbers in the house's look. */
export function axis(ink: Ink, name: string, more: object = {}) {
  return {
    type: 'value' as const,
    name,
    nameLocation: 'middle' as const,
    nameGap: 30,
    scale: true,
    nameTextStyle: { color: ink.soft, fontFamily: ink.font },
    axisLabel: { color: ink.soft, fontFamily: ink.font },
    axisLine: { show: true, lineStyle: { color: ink.ink } },
    splitLine: { lineStyle: { color: ink.line } },
    ...more,
  }
}
