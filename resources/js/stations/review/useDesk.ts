import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { type Filter, findingsOf, isOfCells, wholeOf } from '@/stations/review/filter'
import { type Finding, sequenceOfRow } from '@/stations/review/useFindings'
import type { Target } from '@/stations/review/useRulings'

/** What is looked at on the desk: the finding under the cursor with its record, and what a ruling would be about. */
export function useDesk(tally: Ref<Schemas['Tally']>, filter: Ref<Filter>, ticked: Ref<ReadonlySet<number>>, total: Ref<number | null>) {
  const finding = ref<Finding | null>(null)
  const rowSequence = ref<number | null>(null)
  const cellSequence = ref<number | null>(null)
  /** Null while the finding under the cursor is still on its way: until then there is nothing to rule on. */
  function look(found: Finding | null): void {
    finding.value = found
    if (found === null) return
    const isSameRow = rowSequence.value === sequenceOfRow(found)
    rowSequence.value = sequenceOfRow(found)
    if (found.kind === 'cell') cellSequence.value = found.cell.sequence
    else if (!isSameRow) cellSequence.value = null
  }
  watch(
    () => JSON.stringify(filter.value),
    () => {
      finding.value = null
      rowSequence.value = null
    },
  )
  const record = useQuery({
    queryKey: ['tally', () => tally.value.id, 'record', rowSequence],
    queryFn: ({ signal }) =>
      answer(api.GET('/tallies/{tally}/records/{sequence}', { params: { path: { tally: tally.value.id, sequence: rowSequence.value ?? 0 } }, signal })),
    enabled: () => rowSequence.value !== null,
  })

  const pattern = computed(() => tally.value.patterns.find((one) => one.number === filter.value.pattern))
  /** How a whole pattern or class is ruled on. */
  const standing = computed<Schemas['Standing'] | null>(() => {
    const whole = wholeOf(filter.value)
    if (whole === null) return null
    return whole.scope === 'pattern' ? (pattern.value?.standing ?? null) : (tally.value.classes.find((one) => one.class === whole.target)?.standing ?? null)
  })
  const all = computed<{ about: Target; findings: number; words: string } | null>(() => {
    const findings = standing.value?.findings ?? total.value
    if (findings === null || findings === 0) return null
    const whole = wholeOf(filter.value)
    const words = findingsOf(filter.value, findings)
    return { about: whole ?? { scope: 'filter', filter: { of: isOfCells(filter.value) ? 'cells' : 'rows', ...filter.value } }, findings, words }
  })

  /** What was chosen; else the cell that is looked at, the first that differs, or the row. */
  const target = computed<Target | null>(() => {
    if (ticked.value.size > 0) return { scope: 'selection', filter: { of: isOfCells(filter.value) ? 'cells' : 'rows', sequences: [...ticked.value] } }
    if (finding.value === null) return null
    if (finding.value.kind === 'row' && finding.value.row.class !== 'changed') return { scope: 'row', target: String(finding.value.row.sequence) }
    if (cellSequence.value !== null) return { scope: 'cell', target: String(cellSequence.value) }
    // The cells of a changed row come with its record.
    if (record.data.value === undefined || record.data.value.sequence !== rowSequence.value) return null
    const cell = record.data.value.fields.find((field) => field.finding !== null)?.finding?.sequence
    return cell === undefined ? null : { scope: 'cell', target: String(cell) }
  })
  return { look, finding, record, rowSequence, cellSequence, pattern, standing, all, target }
}
