import type { LocationQuery } from 'vue-router'
import type { Schemas } from '@/api/client'
import { MAY_BE_BLANK, NUMBERS, OF_CELLS, OF_ROWS, TERMS } from '@/api/filterTerms'
import { amount } from '@/format/amounts'
import { className, decisionName } from '@/format/classes'
import { counted } from '@/format/counts'

/**
 * Which findings are looked at. It stands in the address, so that it can be shared. The subject is what is looked at (a row class, a
 * pattern, a column pair); the other terms narrow it down.
 */
export type Filter = Omit<Schemas['Filter'], 'sequences'>

export type Subject = Pick<
  Filter,
  'of' | 'class' | 'reason' | 'side' | 'part' | 'bridged' | 'total' | 'group' | 'moved' | 'pattern' | 'pair' | 'cause' | 'cellClass'
>

/** The filter of an address; what it does not know, it leaves. */
export function filterOf(query: LocationQuery): Filter {
  const terms: Record<string, string | number> = {}
  for (const term of TERMS) {
    const value = query[term]
    if (typeof value !== 'string' || (value === '' && !(MAY_BE_BLANK as readonly string[]).includes(term))) continue
    if ((NUMBERS as readonly string[]).includes(term)) {
      if (/^[1-9]\d{0,8}$/.test(value)) terms[term] = Number(value)
    } else {
      terms[term] = value
    }
  }
  return terms as Filter
}

export const isOfCells = (filter: Filter): boolean => filter.of === 'cells' || OF_CELLS.some((term) => filter[term] !== undefined)

/** Another subject, narrowed down as before; values and acts belong to the subject that was left. */
export function withSubject(filter: Filter, subject: Subject): Filter {
  const { ruling, key, keyColumn, column, value, text } = filter
  // Rows have no difference.
  const { difference, atLeast } = isOfCells(subject) ? filter : {}
  return said({ ...subject, ruling, key, keyColumn, column, value, text, difference, atLeast })
}

/** Without the terms that say nothing. */
export const said = (filter: Filter): Filter => Object.fromEntries(Object.entries(filter).filter(([, value]) => value !== undefined)) as Filter

/** A whole class, a whole pattern, or all rows: what a ruling can be about as such. */
export function wholeOf(filter: Filter): { scope: 'class' | 'pattern'; target: string } | null {
  const terms = Object.keys(said(filter))
  if (terms.length !== 1) return null
  if (filter.pattern !== undefined) return { scope: 'pattern', target: String(filter.pattern) }
  return filter.class !== undefined && filter.class !== 'changed' ? { scope: 'class', target: filter.class } : null
}

export const DIFFERENCES: Record<NonNullable<Filter['difference']>, string> = {
  some: 'without differences of nought',
  up: 'upwards',
  down: 'downwards',
  nought: 'differences of nought',
}

export const rulingName = (ruling: NonNullable<Filter['ruling']>): string => (ruling === 'reopened' ? 'Open again' : decisionName(ruling))

/** What tells rows of a class apart, but for what they are to a control total. */
const GROUP = ['total', 'group', 'moved'] as const
const COLUMN = ['column', 'value'] as const
type Slice = Exclude<(typeof OF_ROWS)[number], (typeof GROUP)[number] | (typeof COLUMN)[number]>
const SLICE = OF_ROWS.filter((term): term is Slice => !([...GROUP, ...COLUMN] as readonly string[]).includes(term))

/** Whether the filter asks for these rows of their class. */
export const isSlice = (filter: Filter, slice: Filter): boolean => filter.class === slice.class && SLICE.every((term) => filter[term] === slice[term])

/** How the tally says it, or, of rows that it has none of, what was asked for. */
function sliceWords(filter: Filter, tally: Schemas['Tally']): string {
  const slice = tally.rowLists.flatMap((list) => list.slices).find((one) => isSlice(filter, one.filter))
  const asked = SLICE.filter((term) => filter[term] !== undefined).map((term) => `${term} ${filter[term] ?? ''}`)
  return slice?.words ?? asked.join(', ')
}

/** What a filter says beside its pattern, one term each, to be read and taken away. The name of a group is told where it is known. */
export function termsSaid(
  filter: Filter,
  tally: Schemas['Tally'],
  group?: string,
): { terms: readonly (keyof Filter)[]; words: string; value?: string; side?: 'source' | 'target' }[] {
  const pairOf = tally.patterns.find((pattern) => pattern.pair === filter.pair)
  const said: { terms: readonly (keyof Filter)[]; words: string; value?: string; side?: 'source' | 'target' }[] = []
  if (SLICE.some((term) => filter[term] !== undefined)) said.push({ terms: SLICE, words: sliceWords(filter, tally) })
  if (filter.total !== undefined)
    said.push({
      terms: GROUP,
      words: `${filter.moved === undefined ? 'in' : 'gone from or to'} the group${group === undefined ? ` at place ${filter.group ?? ''} of total ${filter.total}` : ''}`,
      value: group,
    })
  if (filter.pair !== undefined) said.push({ terms: ['pair'], words: `column ${pairOf?.source ?? filter.pair}` })
  if (filter.cellClass !== undefined) said.push({ terms: ['cellClass'], words: `${filter.cellClass} cells` })
  if (filter.cause !== undefined) said.push({ terms: ['cause'], words: `cause ${filter.cause}` })
  if (filter.difference !== undefined) said.push({ terms: ['difference'], words: DIFFERENCES[filter.difference] })
  if (filter.atLeast !== undefined) said.push({ terms: ['atLeast'], words: `apart by ${amount(filter.atLeast)} or more` })
  if (filter.source !== undefined) said.push({ terms: ['source'], words: 'source is', value: filter.source, side: 'source' })
  if (filter.target !== undefined) said.push({ terms: ['target'], words: 'target is', value: filter.target, side: 'target' })
  if (filter.key !== undefined && filter.keyColumn !== undefined)
    said.push({ terms: ['key', 'keyColumn'], words: `${tally.keyColumns[filter.keyColumn - 1] ?? 'key'} is`, value: filter.key })
  if (filter.column !== undefined && filter.value !== undefined) said.push({ terms: COLUMN, words: `${filter.column} is`, value: filter.value })
  if (filter.ruling !== undefined)
    said.push({ terms: ['ruling'], words: filter.ruling === 'reopened' ? 'open again' : `ruled ${filter.ruling}`.replace('ruled open', 'open') })
  if (filter.act !== undefined) said.push({ terms: ['act'], words: `by ruling ${filter.act}` })
  if (filter.text !== undefined) said.push({ terms: ['text'], words: 'with the text', value: filter.text })
  return said
}

/** A filter in a few words, for lists of acts and of kept filters. */
export function sentenceOf(filter: Filter, tally: Schemas['Tally']): string {
  const pattern = tally.patterns.find((one) => one.number === filter.pattern)
  const subject =
    pattern !== undefined
      ? `${pattern.source}: ${pattern.sentence}`
      : filter.class !== undefined
        ? className(filter.class)
        : isOfCells(filter)
          ? 'cells that differ'
          : 'rows that do not agree'
  const narrowed = termsSaid(filter, tally).map(({ words, value }) => (value === undefined ? words : `${words} "${value}"`))
  return [subject, ...narrowed].join(', ')
}

/** The address of a filter's findings, to be taken away, with the columns that were added to the list; or of what describes their columns. */
export function takenFrom(tally: number, filter: Filter, as: 'csv' | 'json-lines' | 'schema', beside: readonly string[] = []): string {
  const query = new URLSearchParams(as === 'schema' ? {} : { as })
  for (const [term, value] of Object.entries(said(filter))) query.set(term, String(value))
  for (const column of beside) query.append('beside[]', column)
  return `/api/v1/tallies/${tally}/findings/${as === 'schema' ? 'table-schema' : 'taken'}?${query.toString()}`
}

export const findingsOf = (filter: Filter, findings: number): string => counted(findings, isOfCells(filter) ? 'cell' : 'row')
