import type { Schemas } from '@/api/client'
import { formulaName } from '@/format/formulaName'

type Draft = Schemas['PlanDraft']
type Pair = Schemas['KeyColumn']
export const periods = ['month', 'year'] as const
export type Period = (typeof periods)[number]
export interface PeriodOfPair extends Pair {
  period: Period
}

/** A column of dates can make groups by month or year. */
export const periodsOf = (draft: Draft): PeriodOfPair[] =>
  draft.columnPairs
    .filter(({ kind }) => kind === 'date' || kind === 'date-time')
    .flatMap(({ source, target }) => periods.map((period) => ({ source, target, period })))

export const columnOf = (name: string, period: Period): string => `${name} ${period}`

const formulas: Record<Period, (column: string) => string> = {
  month: (column) => `year(${column}) ~ "-" ~ right("0" ~ month(${column}), 2)`,
  year: (column) => `year(${column})`,
}

/** The draft with a step on each side that makes the column of the period, where there is none yet. */
export function withPeriod(draft: Draft, { source, target, period }: PeriodOfPair, freshId: () => string): Draft {
  const sides = { ...draft.sides }
  for (const [side, name] of [
    ['source', source],
    ['target', target],
  ] as const) {
    const into = columnOf(name, period)
    const steps = sides[side]?.preparation ?? []
    if (!steps.some((step) => step.kind === 'compute-column' && step.into === into)) {
      sides[side] = { ...sides[side], preparation: [...steps, { id: freshId(), kind: 'compute-column', into, formula: formulas[period](formulaName(name)) }] }
    }
  }
  return { ...draft, sides }
}
