import type { Schemas } from '@/api/client'
import { pairName } from '@/stations/prove/totals'

export type RequiredRecord = Schemas['RequiredRecord']

/** A rule in words: "agent must have a record in Agents, by agent_no". */
export const sentenceOf = (rule: RequiredRecord): string =>
  `${rule.columns.map(pairName).join(' and ')} must have a record in ${rule.in}, by ${rule.by.map(pairName).join(' and ')}`

export const isSameRule = (one: RequiredRecord, other: RequiredRecord): boolean => sentenceOf(one) === sentenceOf(other)

/** What the values of a list are, in the order in which they matter. */
export const LISTS: Record<Schemas['RecordList'], { words: string; about: string }> = {
  lost: { words: 'lost in the move', about: 'The old system has the record, the new one lacks it.' },
  own: { words: 'only the new system has the value', about: 'Nothing in the old system has this value, and it has no record.' },
  untold: { words: 'without a record', about: 'Nobody can say whether the old system had the record, for its records were not read.' },
  inherited: { words: 'inherited', about: 'The old system has the value without a record too.' },
  source: { words: 'without a record in the old system', about: 'Values of the old system without a record there.' },
  'unreferenced target': { words: 'records of the new system that nothing refers to', about: 'No row of the new system needs them.' },
  'unreferenced source': { words: 'records of the old system that nothing refers to', about: 'No row of the old system needs them.' },
}

/** How many values or records a list has. */
export function lengthOf(check: Schemas['RecordCheck'], list: Schemas['RecordList']): number {
  if (list === 'unreferenced source') return check.source.unreferenced
  return list === 'unreferenced target' ? check.target.unreferenced : check.kinds[list].values
}

/** The lists of a check that have anything in them. */
export const listsOf = (check: Schemas['RecordCheck']): Schemas['RecordList'][] =>
  (Object.keys(LISTS) as Schemas['RecordList'][]).filter((list) => lengthOf(check, list) > 0)

/** Whether the move made anything worse. */
export const isWorse = (check: Schemas['RecordCheck']): boolean => check.kinds.lost.values + check.kinds.own.values + check.kinds.untold.values > 0
