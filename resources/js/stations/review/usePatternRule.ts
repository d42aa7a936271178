import { computed, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'
import type { RuleOfPattern } from '@/stations/review/ruleOfPattern'

/** A pattern becomes a rule of the draft; Match then shows on its trial what that would change, and can take it back. The plan is read when somebody does so. */
export function usePatternRule(course: () => Schemas['Course'], pattern: () => Schemas['Pattern'] | undefined) {
  const router = useRouter()
  const made = shallowRef<{ rule: RuleOfPattern; source: string } | null>(null)
  const { plan, draft: known, saving, rule } = useDraft(course, { station: 'match', isWanted: () => made.value !== null })

  watch([made, known], ([wanted, draft]) => {
    const pair = draft?.columnPairs.find(({ source }) => source === wanted?.source)
    if (wanted === null || pair === undefined) return
    made.value = null
    const stop = watch(saving.isPending, (isSaving) => {
      if (isSaving) return
      stop()
      if (saving.error.value === null) void router.push(`/datasets/${course().id}/match`)
    })
    rule(wanted.source, wanted.rule.apply(pair))
  })
  return {
    makeRule: (chosen: RuleOfPattern): void => {
      const source = pattern()?.source
      if (source !== undefined) made.value = { rule: chosen, source }
    },
    error: computed(() => saving.error.value ?? plan.error.value),
  }
}
