import { computed, onScopeDispose, type Ref, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const BETWEEN_LOOKS = 500

/** Orders the report as PDF, waits until it is printed, and hands it to the browser. */
export function useReport(tally: Ref<number>) {
  const order = ref<Schemas['ReportOrder'] | null>(null)
  const error = ref<Error | null>(null)
  let isGone = false
  onScopeDispose(() => {
    isGone = true
  })

  async function print(): Promise<void> {
    error.value = null
    try {
      order.value = await answer(api.POST('/tallies/{tally}/report-orders', { params: { path: { tally: tally.value } } }))
      while (['queued', 'printing'].includes(order.value.state) && !isGone) {
        await new Promise((resolve) => setTimeout(resolve, BETWEEN_LOOKS))
        order.value = await answer(api.GET('/report-orders/{order}', { params: { path: { order: order.value.id } } }))
      }
      if (order.value.state === 'failed') throw new Error(order.value.problem ?? 'The report could not be printed.')
      if (!isGone && order.value.reportId !== null) window.location.assign(`/api/v1/reports/${order.value.reportId}/pdf`)
    } catch (problem) {
      error.value = problem as Error
    } finally {
      order.value = null
    }
  }

  return { print, error, isPrinting: computed(() => order.value !== null) }
}
