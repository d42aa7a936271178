import { type ComputedRef, ref } from 'vue'
import type { Schemas } from '@/api/client'

/** Above so many findings a ruling is asked about, and their number is said again. */
export const ASK_ABOVE = 100

/** Rules on all findings of a pattern, class or filter: at once where they are few, after a question where they are many. */
export function useRulingOnMany(all: ComputedRef<{ findings: number } | null>, mayRule: () => boolean, rule: (decision: Schemas['Decision']) => void) {
  const isAsking = ref(false)
  /** The decision that is asked about; null where it is chosen in the question. */
  const pending = ref<Schemas['Decision'] | null>(null)

  function ask(decision: Schemas['Decision'] | null): void {
    pending.value = decision
    isAsking.value = true
  }
  function askOrRule(decision: Schemas['Decision']): void {
    if (all.value === null || !mayRule()) return
    if (all.value.findings > ASK_ABOVE) ask(decision)
    else rule(decision)
  }

  return { isAsking, pending, ask, askOrRule }
}
