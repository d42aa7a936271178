import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { Why } from '@/stations/review/useRulings'

type Decision = Schemas['Decision']

const MOST_RECENT = 5
const nothing = (): Why => ({ reason: '', ticket: '', askedId: null })
const name = (dataset: number): string => `nine-tally:reasons:${dataset}`

function kept(dataset: number): string[] {
  const found: unknown = JSON.parse(sessionStorage.getItem(name(dataset)) ?? '[]')
  return Array.isArray(found) ? found.filter((one) => typeof one === 'string') : []
}

/** What is missing before a decision can be entered: whoever reads it later wants to know why, and who was asked. */
export function missing(decision: Decision, why: Why): 'reason' | 'person' | null {
  if ((decision === 'expected' || decision === 'defect') && why.reason.trim() === '') return 'reason'
  return decision === 'ask' && why.askedId === null ? 'person' : null
}

/**
 * Why something is ruled: said once for each ruling, unless it is pinned. A decision that was chosen waits here until it is said; the last
 * reasons are at hand.
 */
export function useWhy(dataset: () => number, enter: (decision: Decision, onAll: boolean, why: Why) => void) {
  const why = ref<Why>(nothing())
  const isPinned = ref(false)
  const waiting = ref<{ decision: Decision; onAll: boolean } | null>(null)
  const recent = ref<string[]>(kept(dataset()))

  /** Enters the decision if all is said and pinned, or nothing has to be; else it waits for the reason. */
  function decide(decision: Decision, onAll: boolean): void {
    if (decision === 'open' || (isPinned.value && missing(decision, why.value) === null)) finish({ decision, onAll })
    else waiting.value = { decision, onAll }
  }
  /** Enters what waits. An empty reason means the one that was said last. */
  function confirm(): void {
    if (waiting.value === null) return
    const last = recent.value[0]
    if (missing(waiting.value.decision, why.value) === 'reason' && last !== undefined) why.value = { ...why.value, reason: last }
    if (missing(waiting.value.decision, why.value) === null) finish(waiting.value)
  }
  function finish({ decision, onAll }: { decision: Decision; onAll: boolean }): void {
    enter(decision, onAll, { ...why.value, reason: why.value.reason.trim() })
    said(why.value.reason)
  }
  /** A reason was used: it is the first of the last ones, and does not slide on to the next finding. */
  function said(reason: string): void {
    if (reason.trim() !== '') {
      recent.value = [reason.trim(), ...recent.value.filter((one) => one !== reason.trim())].slice(0, MOST_RECENT)
      sessionStorage.setItem(name(dataset()), JSON.stringify(recent.value))
    }
    waiting.value = null
    if (!isPinned.value) why.value = nothing()
  }

  return { why, isPinned, waiting, recent: computed(() => recent.value), decide, confirm, cancel: () => (waiting.value = null), said }
}
