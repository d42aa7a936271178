import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'

export type NearValues = Schemas['NearValues']
export type Found = NonNullable<NearValues['found']>
export type NearValue = Found['values'][number]
export type Entry = Schemas['KeyColumn']

/** From this score on values are proposed to be taken together. */
export const CLEAR = 0.8

/** What a look found, in one sentence that accounts for every value. */
export function foundSentence({ all, same, alone, beyond }: Found): string {
  const alike = all.source - same - alone
  const parts = [
    `${count(same)} stand on both sides`,
    `${count(alike)} ${alike === 1 ? 'is' : 'are'} like one of the ${count(all.target)} there`,
    `${count(alone)} ${alone === 1 ? 'is' : 'are'} like none`,
  ]
  return `Of ${counted(all.source, 'different value')} ${parts.join(', ')}.${beyond ? ' There are more values than were looked at.' : ''}`
}

/** Open ones are not in the crosswalk yet; the others are, with what they became. */
export function divided(found: Found, entries: readonly Entry[]): { open: NearValue[]; known: Map<string, string> } {
  const known = new Map(entries.map(({ source, target }) => [source, target]))
  return { open: found.values.filter(({ value }) => !known.has(value)), known }
}

/** Those that nobody needs to look at one by one: very like one, and not nearly as like another. */
export const clear = (values: readonly NearValue[]): NearValue[] =>
  values.filter(({ hasRival, candidates }) => !hasRival && (candidates[0]?.score ?? 0) >= CLEAR)

/** Candidates that are not much less alike than the best are shown with it. */
const NEAR_THE_BEST = 0.15

export const worthALook = ({ candidates }: NearValue): NearValue['candidates'] =>
  candidates.filter(({ score }) => score >= (candidates[0]?.score ?? 0) - NEAR_THE_BEST)

export const entryOf = ({ value, candidates }: NearValue, place = 0): Entry[] => {
  const candidate = candidates[place]
  return candidate === undefined ? [] : [{ source: value, target: candidate.value }]
}

/** What stands most often beside a value; nothing is said as such. */
export const besideSaid = (cells: readonly string[]): string => cells.map((cell) => (cell.trim() === '' ? '(blank)' : cell)).join(', ')
