import { keepPreviousData, useQueries, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { type Filter, isOfCells } from '@/stations/review/filter'
import type { Order } from '@/stations/review/useOrder'

/** With the act that stands on it, where somebody ruled. */
export type Finding = ({ kind: 'row'; row: Schemas['RowFinding'] } | { kind: 'cell'; cell: Schemas['CellFinding'] }) & { act?: Schemas['StandingAct'] }

export const PAGE = 200

/** What is listed, and how. */
interface List {
  tally: number
  filter: Filter
  beside: readonly string[]
  order: Order | null
}

/** Rows have no difference to be sorted by. */
const orderOf = ({ filter, order }: List): Order | null => (isOfCells(filter) ? order : null)

const keyOf = (list: List, page: number) => ['tally', list.tally, 'findings', list.filter, list.beside, page, orderOf(list)]

interface Page {
  items: Finding[]
  total: number | null
}

async function load(list: List, page: number, signal?: AbortSignal): Promise<Page> {
  const { tally, filter, beside } = list
  const query = { ...filter, from: page * PAGE + 1, limit: PAGE, order: orderOf(list) ?? undefined, 'beside[]': [...beside] }
  const found = await answer(api.GET('/tallies/{tally}/findings', { params: { path: { tally }, query }, signal }))
  const acts = new Map(found.acts.map((act) => [act.id, act]))
  const actOf = ({ rulingId }: { rulingId: number | null }) => (rulingId === null ? undefined : acts.get(rulingId))
  const items =
    found.of === 'cells'
      ? found.items.map((cell): Finding => ({ kind: 'cell', cell, act: actOf(cell) }))
      : found.items.map((row): Finding => ({ kind: 'row', row, act: actOf(row) }))
  return { items, total: found.total }
}

/** A page that was asked for while the station was still being drawn is not asked for twice. */
const A_MOMENT = 2_000

/** The first page, which can be asked for before anything else is known of the tally. */
export const firstPage = (list: List) => ({
  queryKey: keyOf(list, 0),
  queryFn: ({ signal }: { signal: AbortSignal }) => load(list, 0, signal),
  staleTime: A_MOMENT,
})

/** The findings of a filter, page by page as they come into sight. How many they are may take longer to find than the first of them. */
export function useFindings(list: Ref<List>, inSight: Ref<readonly number[]>) {
  const tally = computed(() => list.value.tally)
  const filter = computed(() => list.value.filter)
  const first = useQuery(
    computed(() => ({
      ...firstPage(list.value),
      // After a ruling the list stays until it is there again; that of another filter does not.
      placeholderData: (before: Page | undefined, query?: { queryKey: readonly unknown[] }) =>
        JSON.stringify([query?.queryKey[3], query?.queryKey[6]]) === JSON.stringify([filter.value, orderOf(list.value)]) ? keepPreviousData(before) : undefined,
    })),
  )
  const isUncounted = computed(() => first.data.value?.total === null)
  const counted = useQuery({
    queryKey: ['tally', tally, 'findings', filter, 'count'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/findings/count', { params: { path: { tally: tally.value }, query: filter.value }, signal })),
    enabled: isUncounted,
  })
  const others = useQueries({
    queries: computed(() =>
      inSight.value
        .filter((page) => page > 0)
        .map((page) => ({
          queryKey: keyOf(list.value, page),
          queryFn: ({ signal }: { signal: AbortSignal }) => load(list.value, page, signal),
        })),
    ),
  })
  /** Null until it is known. */
  const total = computed(() => first.data.value?.total ?? counted.data.value?.total ?? null)
  /** How many lines can be drawn: while nobody has counted, the first page. */
  const length = computed(() => total.value ?? first.data.value?.items.length ?? 0)
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
  return { first, counted, total, length, at }
}

export const sequenceOfRow = (finding: Finding): number => (finding.kind === 'row' ? finding.row.sequence : finding.cell.rowSequence)
/** Its place among all findings of its kind: by this a selection knows it. */
export const sequenceOf = (finding: Finding): number => (finding.kind === 'row' ? finding.row.sequence : finding.cell.sequence)
