import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

type Draft = NonNullable<Schemas['Plan']['draft']>
type Pair = Schemas['KeyColumn']

/** The draft of the plan: each change is kept at once, and can be taken back. */
export function useDraft(course: () => Schemas['Course']) {
  const queries = useQueryClient()
  const path = computed(() => ({ dataset: course().id }))
  const queryKey = ['dataset', () => course().id, 'plan', () => course().source?.id, () => course().target?.id]
  const plan = useQuery({ queryKey, queryFn: () => answer(api.GET('/datasets/{dataset}/plan', { params: { path: path.value } })) })
  const draft = ref<Draft | null>(null)
  const earlier = ref<Draft[]>([])
  watch(
    () => plan.data.value,
    (loaded) => {
      if (draft.value === null && loaded?.draft != null) draft.value = loaded.draft
    },
    { immediate: true },
  )

  const saving = useMutation({
    // One after the other: the last change must be the one that stays.
    scope: { id: 'plan-draft' },
    mutationFn: (kept: Draft) =>
      answer(
        api.PUT('/datasets/{dataset}/plan', {
          params: { path: path.value },
          body: { key: kept.key, columnPairs: kept.columnPairs.map(({ source, target }) => ({ source, target })), leftOut: kept.leftOut },
        }),
      ),
    onSuccess: (saved) => {
      queries.setQueriesData({ queryKey: ['dataset', course().id, 'plan'] }, saved)
      return queries.invalidateQueries({ queryKey: ['dataset'], predicate: (query) => query.queryKey.includes('course') })
    },
  })

  function keep(next: Draft): void {
    draft.value = next
    saving.mutate(next)
  }

  function change(alter: (draft: Draft) => Draft): void {
    if (draft.value === null) return
    earlier.value.push(draft.value)
    keep(alter(draft.value))
  }

  function undo(): void {
    const last = earlier.value.pop()
    if (last !== undefined) keep(last)
  }

  const asPair = ({ source, target }: Pair): Draft['columnPairs'][number] => ({ id: '', source, target, kind: 'text' })

  /** Pairs a source column with a target one; whatever held either of them before lets go. */
  function pair(source: string, target: string | null): void {
    change((next) => {
      const inKey = next.key.findIndex((column) => column.source === source)
      const place = next.columnPairs.findIndex((column) => column.source === source)
      const free = (column: Pair): boolean => column.source !== source && (target === null || column.target !== target)
      const key = next.key
        .map((column, position) => (position === inKey && target !== null ? { source, target } : column))
        .filter((column, position) => (position === inKey ? target !== null : free(column)))
      const columnPairs = next.columnPairs.filter(free)
      if (inKey === -1 && target !== null) columnPairs.splice(place === -1 ? columnPairs.length : place, 0, asPair({ source, target }))
      const leftOut = {
        source: target === null ? [...next.leftOut.source.filter((name) => name !== source), source] : next.leftOut.source.filter((name) => name !== source),
        target: next.leftOut.target.filter((name) => name !== target),
      }
      return { ...next, key, columnPairs, leftOut }
    })
  }

  /** A key column says which row is which; the others must be equal. */
  function toggleKey({ source, target }: Pair): void {
    change((next) =>
      next.key.some((column) => column.source === source)
        ? { ...next, key: next.key.filter((column) => column.source !== source), columnPairs: [asPair({ source, target }), ...next.columnPairs] }
        : { ...next, key: [...next.key, { source, target }], columnPairs: next.columnPairs.filter((column) => column.source !== source) },
    )
  }

  return { plan, draft, saving, pair, toggleKey, undo, canUndo: computed(() => earlier.value.length > 0) }
}
