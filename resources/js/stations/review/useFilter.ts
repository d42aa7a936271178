import { computed } from 'vue'
import { type LocationQuery, useRoute, useRouter } from 'vue-router'
import { type Filter, filterOf, said, type Subject, withSubject } from '@/stations/review/filter'

/** What an address says beside a filter. */
const BESIDE = ['tally', 'order', 'row']

/** Whether an address says nothing of what is looked at. */
export const isUnsaid = (query: LocationQuery): boolean => Object.keys(query).every((term) => BESIDE.includes(term))

/** The filter in the address, and what changes it. Each change is a page: the way back leads to the filter before. */
export function useFilter() {
  const route = useRoute()
  const router = useRouter()
  // The address also names what is opened: it says the same filter then, and whoever waits for another one is not woken.
  const filter = computed<Filter>((before) => {
    const now = filterOf(route.query)
    return before !== undefined && JSON.stringify(before) === JSON.stringify(now) ? before : now
  })
  const tally = (): Record<string, string> => (typeof route.query.tally === 'string' ? { tally: route.query.tally } : {})
  const queryOf = (to: Filter) => {
    const query = { ...tally(), ...(typeof route.query.order === 'string' ? { order: route.query.order } : {}) } as Record<string, string>
    for (const [term, value] of Object.entries(said(to))) query[term] = String(value)
    return query
  }
  const set = (to: Filter, inPlace = false) => (inPlace ? router.replace({ query: queryOf(to) }) : router.push({ query: queryOf(to) }))
  return {
    filter,
    set,
    /** The list of what a rule let pass that is looked at instead of findings, by its number. */
    forgiven: computed(() => (typeof route.query.forgiven === 'string' ? Number(route.query.forgiven) : null)),
    chooseForgiven: (number: number) => router.push({ query: { ...tally(), forgiven: String(number) } }),
    choose: (subject: Subject) => set(withSubject(filter.value, subject)),
    narrow: (terms: Filter) => set({ ...filter.value, ...terms }),
    widen: (terms: readonly (keyof Filter)[]) => set({ ...filter.value, ...Object.fromEntries(terms.map((term) => [term, undefined])) }),
  }
}
