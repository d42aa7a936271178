import { useQueries, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

/** What the list shows: all rows that did not agree, the rows of one class, or the cells of one pattern. */
export type Choice = { kind: 'rows'; rowClass: Schemas['RowClass'] | null } | { kind: 'cells'; pattern: number }

export type Finding = { kind: 'row'; row: Schemas['RowFinding'] } | { kind: 'cell'; cell: Schemas['CellFinding'] }

export const PAGE = 200

interface Page {
  items: Finding[]
  total: number
}

async function load(tally: number, choice: Choice, page: number, signal?: AbortSignal): Promise<Page> {
  const query = { from: page * PAGE + 1, limit: PAGE }
  if (choice.kind === 'cells') {
    const cells = await answer(api.GET('/tallies/{tally}/patterns/{number}/cells', { params: { path: { tally, number: choice.pattern }, query }, signal }))
    return { items: cells.items.map((cell) => ({ kind: 'cell', cell })), total: cells.total }
  }
  const rows = await answer(api.GET('/tallies/{tally}/rows', { params: { path: { tally }, query: { ...query, class: choice.rowClass ?? undefined } }, signal }))
  return { items: rows.items.map((row) => ({ kind: 'row', row })), total: rows.total }
}

/** The findings of a choice, page by page as they come into sight. */
export function useFindings(tally: Ref<number>, choice: Ref<Choice>, inSight: Ref<readonly number[]>) {
  const first = useQuery({ queryKey: ['tally', tally, 'findings', choice, 0], queryFn: ({ signal }) => load(tally.value, choice.value, 0, signal) })
  const others = useQueries({
    queries: computed(() =>
      inSight.value
        .filter((page) => page > 0)
        .map((page) => ({
          queryKey: ['tally', tally.value, 'findings', choice.value, page],
          queryFn: ({ signal }: { signal: AbortSignal }) => load(tally.value, choice.value, page, signal),
        })),
    ),
  })
  const total = computed(() => first.data.value?.total ?? 0)
  const pages = computed(() => {
    const found = new Map<number, Finding[]>()
    if (first.data.value !== undefined) found.set(0, first.data.value.items)
    inSight.value
      .filter((page) => page > 0)
      .forEach((page, position) => {
        const items = others.value[position]?.data?.items
        if (items !== undefined) found.set(page, items)
      })
    return found
  })
  const at = (index: number): Finding | undefined => pages.value.get(Math.floor(index / PAGE))?.[index % PAGE]
  return { first, total, at }
}

export const sequenceOfRow = (finding: Finding): number => (finding.kind === 'row' ? finding.row.sequence : finding.cell.rowSequence)
