import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { readSo, withFold, withRungs, withSteps, withTokens, type Fold, type ReadAs, type Rung, type Side, type Token } from '@/composables/draftChanges'
import { useJoin } from '@/composables/useJoin'
import { keepChanges, keptChanges, type Station } from '@/composables/keptChanges'
import { freshStepId } from '@/format/freshStepId'
import { formsOfKinds, inOrder } from '@/format/rules'

type Draft = Schemas['PlanDraft']
type Pair = Schemas['KeyColumn']
/** The draft of the plan: each change is kept at once, and can be taken back, at a station also after the page was loaded again. Who needs it only now and then says when it is wanted. */
export function useDraft(course: () => Schemas['Course'], { station, isWanted = () => true }: { station?: Station; isWanted?: () => boolean } = {}) {
  const queries = useQueryClient()
  const path = computed(() => ({ dataset: course().id }))
  const queryKey = ['dataset', () => course().id, 'plan', () => course().source?.id, () => course().target?.id]
  const plan = useQuery({ queryKey, queryFn: () => answer(api.GET('/datasets/{dataset}/plan', { params: { path: path.value } })), enabled: isWanted })
  const refreshCourse = () => queries.invalidateQueries({ queryKey: ['dataset'], predicate: (query) => query.queryKey.includes('course') })
  const draft = ref<Draft | null>(null)
  const earlier = ref<Draft[]>([])
  const undone = ref<Draft[]>([])
  const { joined, save, remember: see, isNewer, choose, dismiss } = useJoin(() => course().id, draft)
  function remember(led: Draft): void {
    if (station !== undefined) keepChanges(course().id, station, led, { earlier: earlier.value, undone: undone.value })
  }

  const saving = useMutation({
    // One after the other: the last change must be the one that stays.
    scope: { id: 'plan-draft' },
    mutationFn: (kept: Draft) =>
      save(kept, () => {
        // What was changed before led to a draft that nobody has any more.
        earlier.value = []
        undone.value = []
      }),
    onSuccess: (saved) => {
      queries.setQueriesData({ queryKey: ['dataset', course().id, 'plan'] }, saved)
      if (saved.draft !== null) remember(saved.draft)
      return refreshCourse()
    },
  })

  watch(
    () => plan.data.value,
    (loaded) => {
      // What somebody else saved is shown as soon as it is known, unless something of one's own is on its way: then both are joined.
      const isNews = loaded?.draft != null && draft.value !== null && isNewer(loaded) && !saving.isPending.value
      if (loaded?.draft != null && (draft.value === null || isNews)) {
        draft.value = loaded.draft
        see(loaded)
        if (isNews) {
          earlier.value = []
          undone.value = []
        } else if (station !== undefined) ({ earlier: earlier.value, undone: undone.value } = keptChanges(course().id, station, loaded.draft))
      }
      // The first look at a plan proposes one: the rail still says that there is none.
      if ((loaded?.draft?.key.length ?? 0) > 0 && course().keyColumns.length === 0) void refreshCourse()
    },
    { immediate: true },
  )

  function keep(next: Draft): void {
    draft.value = next
    saving.mutate(next)
  }

  function change(alter: (draft: Draft) => Draft): void {
    if (draft.value === null) return
    earlier.value.push(draft.value)
    undone.value = []
    keep(alter(draft.value))
  }

  /** Another plan takes the place of the draft: the server has kept it, and it can be taken back like any change. */
  function replaced(by: Draft): void {
    if (draft.value !== null) earlier.value.push(draft.value)
    undone.value = []
    draft.value = by
    remember(by)
  }

  function undo(): void {
    const last = earlier.value.pop()
    if (last === undefined || draft.value === null) return
    undone.value.push(draft.value)
    keep(last)
  }

  function redo(): void {
    const next = undone.value.pop()
    if (next === undefined || draft.value === null) return
    earlier.value.push(draft.value)
    keep(next)
  }

  // Without an id: the server gives the one that follows from the names, so rulings on the pair find it again.
  const asPair = (of: Draft, { source, target }: Pair): Schemas['ColumnPair'] => {
    const forgives = of.defaults?.forgives ?? []
    return { id: '', source, target, kind: 'text', ...(forgives.length > 0 ? { forgives } : {}) }
  }

  /** Pairs a source column with a target one; whatever held either of them before lets go. */
  function pair(source: string, target: string | null): void {
    change((next) => {
      const inKey = next.key.findIndex((column) => column.source === source)
      const place = next.columnPairs.findIndex((column) => column.source === source)
      const free = (column: Pair): boolean => column.source !== source && (target === null || column.target !== target)
      const key = next.key
        .map((column, position) => (position === inKey && target !== null ? { ...column, target } : column))
        .filter((column, position) => (position === inKey ? target !== null : free(column)))
      const columnPairs = next.columnPairs.filter(free)
      if (inKey === -1 && target !== null) columnPairs.splice(place === -1 ? columnPairs.length : place, 0, asPair(next, { source, target }))
      const leftOut = {
        source: target === null ? [...next.leftOut.source.filter((name) => name !== source), source] : next.leftOut.source.filter((name) => name !== source),
        target: next.leftOut.target.filter((name) => name !== target),
      }
      return { ...next, key, columnPairs, leftOut }
    })
  }

  /** Pairs several columns at once, and reads them as their kind, as one change. */
  function pairAll(pairs: readonly Pair[], kinds: readonly ReadAs[] = []): void {
    change((next) => {
      const taken = new Set([...next.key, ...next.columnPairs].flatMap(({ source, target }) => [`source ${source}`, `target ${target}`]))
      const free = pairs.filter(({ source, target }) => !taken.has(`source ${source}`) && !taken.has(`target ${target}`))
      const named = (side: Side): Set<string> => new Set(free.map((one) => one[side]))
      const paired = {
        ...next,
        columnPairs: [...next.columnPairs, ...free.map((one) => asPair(next, one))],
        leftOut: {
          source: next.leftOut.source.filter((name) => !named('source').has(name)),
          target: next.leftOut.target.filter((name) => !named('target').has(name)),
        },
      }
      return readSo(
        paired,
        kinds.filter(({ source }) => named('source').has(source)),
      )
    })
  }

  /** A column that stays in the key keeps what it forgives. */
  function forgivenIn(of: Draft, source: string): Pick<Schemas['KeyColumnRules'], 'forgives'> {
    const forgives = of.key.find((column) => column.source === source)?.forgives
    return forgives === undefined ? {} : { forgives }
  }

  /** Makes these columns the key, in their order; what was in it is compared instead. */
  function useKey(columns: readonly Pair[]): void {
    change((next) => {
      const isKey = ({ source }: Pair): boolean => columns.some((column) => column.source === source)
      return {
        ...next,
        key: columns.map(({ source, target }) => ({ source, target, ...forgivenIn(next, source) })),
        columnPairs: [...next.key.filter((column) => !isKey(column)).map((one) => asPair(next, one)), ...next.columnPairs.filter((column) => !isKey(column))],
      }
    })
  }

  /** A key column says which row is which; the others must be equal. */
  function toggleKey({ source, target }: Pair): void {
    change((next) =>
      next.key.some((column) => column.source === source)
        ? { ...next, key: next.key.filter((column) => column.source !== source), columnPairs: [asPair(next, { source, target }), ...next.columnPairs] }
        : { ...next, key: [...next.key, { source, target }], columnPairs: next.columnPairs.filter((column) => column.source !== source) },
    )
  }

  /** Sets rules of the pair, or the key column, of a source column; a rule that is undefined goes. */
  function rule(source: string, rules: Partial<Schemas['ColumnPair']>): void {
    change((next) => ({
      ...next,
      key: next.key.map((column) => (column.source === source ? { ...column, ...rules } : column)),
      columnPairs: next.columnPairs.map((column) => (column.source === source ? { ...column, ...rules } : column)),
    }))
  }

  /** Columns of a side become rows, as they stand on the other. */
  function fold(proposed: Fold): void {
    change((next) => withFold(next, proposed, freshStepId))
  }

  /** Gives what a pair forgives to others too, as one change; forms of a kind stay with whoever has that kind. */
  function forgiveIn(sources: readonly string[], forgives: readonly Schemas['FormCause'][]): void {
    change((next) => ({
      ...next,
      columnPairs: next.columnPairs.map((column) =>
        sources.includes(column.source)
          ? {
              ...column,
              forgives: inOrder([
                ...forgives.filter((cause) => !formsOfKinds.includes(cause)),
                ...(column.forgives ?? []).filter((cause) => formsOfKinds.includes(cause)),
              ]),
            }
          : column,
      ),
    }))
  }

  /** What pairs forgive that are made from now on. */
  function forgiveByDefault(forgives: readonly Schemas['FormCause'][]): void {
    change((next) => ({ ...next, defaults: { forgives: forgives.filter((cause) => !formsOfKinds.includes(cause)) } }))
  }

  /** Reads several pairs as their kind, and their columns in the forms that go with it, and takes values for blank, as one change. */
  function readAs(kinds: readonly ReadAs[], tokens: readonly Token[] = []): void {
    change((next) => withTokens(readSo(next, kinds), tokens))
  }

  /** Columns of the key forgive causes of form, or have steps that take them away, as one change. */
  function forgiveInKey(rungs: readonly Rung[], asSteps = false): void {
    change((next) => (asSteps ? withSteps(next, rungs, freshStepId) : withRungs(next, rungs, freshStepId)))
  }

  /** Sets how one column of a side is read. */
  function declare(side: Side, column: string, reading: Schemas['Reading']): void {
    change((next) => {
      const rules = next.sides?.[side] ?? {}
      return { ...next, sides: { ...next.sides, [side]: { ...rules, columns: { ...rules.columns, [column]: { ...rules.columns?.[column], ...reading } } } } }
    })
  }

  /** Sets how a side is read where its columns declare nothing of their own. */
  function declareSide(side: Side, reading: Schemas['Reading']): void {
    change((next) => ({ ...next, sides: { ...next.sides, [side]: { ...next.sides?.[side], ...reading } } }))
  }

  /** Sets what the target demands of a column; nothing at all takes the demand away. */
  function demand(target: string, demanded: Schemas['Demand']): void {
    change((next) => {
      const others = Object.fromEntries(Object.entries(next.demands ?? {}).filter(([name]) => name !== target))
      return { ...next, demands: Object.keys(demanded).length === 0 ? others : { ...others, [target]: demanded } }
    })
  }

  /** Sets the figures that both sides must have in common, with what has to be prepared for them. */
  function setTotals(totals: readonly Schemas['ControlTotal'][], prepared: (of: Draft) => Draft = (of) => of): void {
    change((next) => ({ ...prepared(next), totals: [...totals] }))
  }

  /** Sets which columns must have a record in another dataset. */
  function setRecords(records: readonly Schemas['RequiredRecord'][]): void {
    change((next) => ({ ...next, records: [...records] }))
  }

  /** Says whose values are masked: of a column of a side, or of both columns of a pair. */
  function flag(columns: Partial<Record<Side, string>>, isSensitive: boolean): void {
    change((next) => {
      const flagged = (side: Side): string[] => {
        const others = (next.sensitive?.[side] ?? []).filter((name) => name !== columns[side])
        return columns[side] !== undefined && isSensitive ? [...others, columns[side]] : others
      }
      return { ...next, sensitive: { source: flagged('source'), target: flagged('target') } }
    })
  }

  /** Sets how a reference is read; nothing at all leaves it as delivered. */
  function prepareReference(reference: string, rules: Schemas['ReferenceRules']): void {
    change((next) => ({ ...next, references: { ...next.references, [reference]: { ...next.references?.[reference], ...rules } } }))
  }

  /** Sets the steps of a side. */
  function prepareSide(side: Side, steps: readonly Schemas['Step'][]): void {
    change((next) => ({ ...next, sides: { ...next.sides, [side]: { ...next.sides?.[side], preparation: [...steps] } } }))
  }

  /** Pairing in order holds for both sides or for none. */
  function repeat(side: Side, policy: Schemas['RepeatsPolicy']): void {
    change((next) => {
      const of = (which: Side): Schemas['RepeatsPolicy'] => {
        const earlierPolicy = next.sides?.[which]?.repeats ?? { policy: 'set-aside' }
        if (which === side || policy.policy === 'pair-in-order') return policy
        return earlierPolicy.policy === 'pair-in-order' ? { policy: 'set-aside' } : earlierPolicy
      }
      return { ...next, sides: { source: { ...next.sides?.source, repeats: of('source') }, target: { ...next.sides?.target, repeats: of('target') } } }
    })
  }

  return {
    plan,
    draft,
    saving,
    joined,
    choose,
    dismiss,
    pair,
    pairAll,
    useKey,
    toggleKey,
    rule,
    readAs,
    forgiveInKey,
    fold,
    forgiveIn,
    forgiveByDefault,
    declare,
    declareSide,
    demand,
    setTotals,
    setRecords,
    flag,
    prepareReference,
    prepareSide,
    repeat,
    replaced,
    undo,
    canUndo: computed(() => earlier.value.length > 0),
    redo,
    canRedo: computed(() => undone.value.length > 0),
  }
}
