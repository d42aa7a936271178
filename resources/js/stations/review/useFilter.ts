import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Filter, filterOf, said, type Subject, withSubject } from '@/stations/review/filter'

/** The filter in the address, and what changes it. */
export function useFilter() {
  const route = useRoute()
  const router = useRouter()
  const filter = computed(() => filterOf(route.query))
  const set = (to: Filter) => {
    const query: Record<string, string> = typeof route.query.tally === 'string' ? { tally: route.query.tally } : {}
    for (const [term, value] of Object.entries(said(to))) query[term] = String(value)
    return router.replace({ query })
  }
  return {
    filter,
    set,
    choose: (subject: Subject) => set(withSubject(filter.value, subject)),
    narrow: (terms: Filter) => set({ ...filter.value, ...terms }),
    widen: (terms: readonly (keyof Filter)[]) => set({ ...filter.value, ...Object.fromEntries(terms.map((term) => [term, undefined])) }),
  }
}
