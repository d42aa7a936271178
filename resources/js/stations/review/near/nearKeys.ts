import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'

export type NearKeys = Schemas['NearKeys']
export type Found = NonNullable<NearKeys['found']>
export type NearPair = Schemas['NearPair']
export type Column = Schemas['LikenessColumn']

/** The score of the first step of the curve, and how far its steps lie apart. */
const FLOOR = 0.5
const STEP = 0.01

export const KINDS: { kind: Column['kind']; name: string; help: string }[] = [
  { kind: 'words', name: 'words', help: 'whole names, addresses, organisations: words in any order, initials, legal forms' },
  { kind: 'name', name: 'name', help: 'one name: spelling, its beginning above all' },
  { kind: 'code', name: 'code', help: 'numbers and codes: characters wrong, missing, or swapped' },
  { kind: 'number', name: 'number', help: 'amounts and sizes: how far apart' },
  { kind: 'date', name: 'date', help: 'days: how far apart, up to a year' },
  { kind: 'beginning', name: 'beginning', help: 'texts that one side has cut' },
]

export const columnName = ({ source, target }: { source: string; target: string }): string => (source === target ? source : `${source} → ${target}`)

export const scoreOf = (step: number): number => FLOOR + step * STEP

/** Only what is the same in every column has a score of 1. */
export const scoreSaid = (score: number): string => (Math.floor(100 * score + 1e-9) / 100).toFixed(2)

/** At a score: rows of the source without a candidate, with one, and with several. */
export function candidatesAt(curve: Found['curve'], rows: number, score: number): { none: number; one: number; several: number } {
  const from = Math.max(0, Math.round((score - FLOOR) / STEP))
  const above = (list: readonly number[]): number => list.slice(from).reduce((sum, step) => sum + step, 0)
  const [some, several] = [above(curve.best), above(curve.second)]
  return { none: rows - some, one: some - several, several }
}

export const candidatesSentence = ({ none, one, several }: ReturnType<typeof candidatesAt>): string =>
  `${count(one)} of ${counted(none + one + several, 'missing row')} have one candidate, ${count(several)} several, ${count(none)} none.`

/** What speaks for a column. */
export function whyColumn({ distinct, rows, agreed }: NearKeys['proposed'][number]): string {
  const tells = `${counted(distinct, 'value')} in ${counted(rows, 'row')}`
  return agreed === null ? tells : `${tells}; agrees in ${Math.round(100 * agreed)} % of the rows that meet`
}

/** Words that mean the same, a line each: "Street = St." */
export function equivalentsOf(text: string): { word: string; meaning: string }[] {
  const folded = (word: string): string => word.trim().toLowerCase().replace(/\.$/, '')
  return text.split('\n').flatMap((line) => {
    const [word = '', meaning = ''] = line.split('=').map(folded)
    return word !== '' && meaning !== '' && !word.includes(' ') && !meaning.includes(' ') ? [{ word, meaning }] : []
  })
}
