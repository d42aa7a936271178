import type { Schemas } from '@/api/client'

export type ControlTotal = Schemas['ControlTotal']
type Pair = Schemas['KeyColumn']

export const pairName = ({ source, target }: Pair): string => (source === target ? source : `${source} / ${target}`)
export const measures: Record<ControlTotal['measure'], string> = {
  rows: 'Number of rows',
  sum: 'Sum',
  blanks: 'Blank cells',
  distinct: 'Distinct values',
  least: 'Least value',
  greatest: 'Greatest value',
}

function unitOf({ times }: ControlTotal): string {
  if (times === undefined) return ''
  return ` × ${times.constant ?? pairName({ source: times.source ?? '', target: times.target ?? '' })}`
}

const ofRows = { prepared: '', matched: ', over rows that matched', delivered: ', over delivered rows' }

export function nameOf(total: ControlTotal): string {
  const column = total.source === undefined ? '' : pairName({ source: total.source, target: total.target ?? '' })
  const what = total.measure === 'rows' ? measures.rows : `${measures[total.measure]} of ${column}${unitOf(total)}`
  const by = total.by === undefined || total.by.length === 0 ? '' : ` by ${total.by.map(pairName).join(' and ')}`
  return `${what}${by}${ofRows[total.over ?? 'prepared']}`
}

const alongOf = ({ along }: ControlTotal): string => (along ?? []).map(pairName).join(', ')

/** The same total, whatever is left out because it is as it would be by itself. */
export const isSame = (one: ControlTotal, other: ControlTotal): boolean =>
  nameOf(one) === nameOf(other) && alongOf(one) === alongOf(other) && (one.kind ?? 'number') === (other.kind ?? 'number')

/** What is worth adding up, by the plan: rows and each number, by the first column of the key where it has several. */
export function proposals(draft: Schemas['PlanDraft']): ControlTotal[] {
  const [first] = draft.key
  const by = draft.key.length > 1 && first !== undefined ? { by: [{ source: first.source, target: first.target }] } : {}
  const numbers = draft.columnPairs.filter(({ kind }) => kind === 'number')
  const all: ControlTotal[] = [{ measure: 'rows', ...by }, ...numbers.map(({ source, target }): ControlTotal => ({ measure: 'sum', source, target, ...by }))]
  return all.filter((proposed) => !(draft.totals ?? []).some((total) => isSame(total, proposed)))
}
