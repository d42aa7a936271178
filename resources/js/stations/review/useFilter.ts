import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Filter, filterOf, said, type Subject, withSubject } from '@/stations/review/filter'

/** The filter in the address, and what changes it. */
export function useFilter() {
  const route = useRoute()
  const router = useRouter()
  const filter = computed(() => filterOf(route.query))
  const tally = (): Record<string, string> => (typeof route.query.tally === 'string' ? { tally: route.query.tally } : {})
  const queryOf = (to: Filter) => {
    const query = { ...tally(), ...(typeof route.query.order === 'string' ? { order: route.query.order } : {}) } as Record<string, string>
    for (const [term, value] of Object.entries(said(to))) query[term] = String(value)
    return query
  }
  const set = (to: Filter) => router.replace({ query: queryOf(to) })
  return {
    filter,
    set,
    /** The list of what a rule let pass that is looked at instead of findings, by its number. */
    forgiven: computed(() => (typeof route.query.forgiven === 'string' ? Number(route.query.forgiven) : null)),
    chooseForgiven: (number: number) => router.push({ query: { ...tally(), forgiven: String(number) } }),
    /** Another subject is another page: the way back leads to the one before. */
    choose: (subject: Subject) => router.push({ query: queryOf(withSubject(filter.value, subject)) }),
    narrow: (terms: Filter) => set({ ...filter.value, ...terms }),
    widen: (terms: readonly (keyof Filter)[]) => set({ ...filter.value, ...Object.fromEntries(terms.map((term) => [term, undefined])) }),
  }
}
