import { useQuery } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { asWireError } from './client.ts'

/** One thing read: its value under its own name, why it is not there, and how to ask again. */
export function asked<Name extends string, T>(
  name: Name,
  key: () => readonly unknown[],
  load: () => Promise<T>,
  on?: () => boolean,
) {
  const query = useQuery({
    queryKey: computed(key),
    queryFn: load,
    enabled: computed(() => on?.() ?? true),
  })
  return reactive({
    [name]: computed(() => query.data.value ?? null),
    error: computed(() => (query.error.value ? asWireError(query.error.value) : null)),
    load: async () => void (await query.refetch()),
  }) as Record<Name, T | null> & { error: ReturnType<typeof asWireError> | null; load: () => Promise<void> }
}
