import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'

export type Order = Schemas['FindingOrder']

export const ORDERS: Record<Order, string> = {
  largest: 'Largest difference first',
  relative: 'Largest share of the source first',
  up: 'Most added first',
  down: 'Most taken first',
}

/** What stands first in the list, as the address says it; null for the order of the source. */
export function useOrder() {
  const route = useRoute()
  const router = useRouter()
  const order = computed(() => (typeof route.query.order === 'string' && route.query.order in ORDERS ? (route.query.order as Order) : null))
  return { order, setOrder: (to: Order | null) => router.replace({ query: { ...route.query, order: to ?? undefined } }) }
}
