import type { QueryClient } from '@tanstack/vue-query'
import { tallyOf } from '@/composables/useTally'
import { besideOf } from '@/stations/review/useBeside'
import { firstPage } from '@/stations/review/useFindings'

/** Asks for what Review draws first, unless it is known: its station is on the way of almost everybody, and has most to wait for. */
export function askAhead(queries: QueryClient, dataset: number, tally: number): void {
  void queries.prefetchQuery({ ...tallyOf(tally), staleTime: Infinity })
  void queries.prefetchQuery({ ...firstPage({ tally, filter: {}, beside: besideOf(dataset), order: null }), staleTime: Infinity })
}
