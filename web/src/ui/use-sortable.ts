import Sortable from 'sortablejs'
import { onScopeDispose, watch, type Ref } from 'vue'

/** Lets a list be dragged into another order; the ids come from `data-id`, in the new order. Ends with its component. */
export function useSortable(list: Readonly<Ref<HTMLElement | null>>, onOrder: (ids: string[]) => void): void {
  let sortable: Sortable | null = null
  watch(list, (element) => {
    sortable?.destroy()
    sortable = element
      ? Sortable.create(element, {
          handle: '.grip',
          dataIdAttr: 'data-id',
          animation: matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120,
          onEnd: ({ oldIndex, newIndex }) => {
            if (oldIndex !== newIndex) onOrder(sortable!.toArray())
          },
        })
      : null
  })
  onScopeDispose(() => sortable?.destroy())
}
