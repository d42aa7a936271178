import { computed, nextTick, type Ref, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, api, type Schemas } from '@/api/client'
import { isLeaving } from '@/composables/onTheWay'
import { type Filter, isOfCells } from '@/stations/review/filter'

/**
 * The finding that is opened stands in the address by its number in the tally, which never changes, and by no value of its key: so a page that is
 * loaded again, that one comes back to, or whose address was sent to somebody, opens the same. Nothing is written there before the page has
 * begun with its first filter: it would overtake it.
 */
export function useOpened(
  tally: Ref<Schemas['Tally']>,
  filter: Ref<Filter>,
  opened: Ref<number | null>,
  goTo: (index: number) => void,
  begun: Promise<unknown>,
): void {
  const route = useRoute()
  const router = useRouter()
  const named = computed(() => {
    const sequence = Number(route.query.finding ?? 0)
    return Number.isInteger(sequence) && sequence > 0 ? sequence : null
  })
  /** Named in the address, and not found yet: until then nothing else is written there. */
  const wanted = ref(named.value)
  const mayWrite = ref(false)
  void begun.finally(() => (mayWrite.value = true))

  async function open(sequence: number): Promise<void> {
    const query = { of: isOfCells(filter.value) ? ('cells' as const) : ('rows' as const), ...filter.value, finding: sequence }
    try {
      const { place } = await answer(api.GET('/tallies/{tally}/findings/place', { params: { path: { tally: tally.value.id }, query } }))
      if (place !== null && wanted.value === sequence) await nextTick(() => goTo(place - 1))
    } finally {
      if (wanted.value === sequence) wanted.value = null
    }
  }
  if (wanted.value !== null) void open(wanted.value)
  watch(
    () => JSON.stringify(filter.value),
    () => {
      if (named.value === null || named.value === opened.value) return
      wanted.value = named.value
      void open(named.value)
    },
  )
  watch([opened, wanted, mayWrite], ([sequence]) => {
    if (!mayWrite.value || sequence === null || wanted.value !== null || sequence === named.value || isLeaving(route.path)) return
    void router.replace({ query: { ...route.query, at: undefined, tally: String(tally.value.id), finding: String(sequence) } })
  })
}
