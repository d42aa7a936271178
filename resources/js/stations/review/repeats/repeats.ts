import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { amount } from '@/format/amounts'
import { count, counted } from '@/format/counts'

export type Found = Schemas['RepeatsFound']
export type Group = Found['groups'][number]
export type Pattern = Found['patterns'][number]
/** Which row of a group a person keeps, by its place in the look; none takes the choice back. */
export interface Choice {
  side: Side
  group: number
  row: number | null
  reason: string | null
}
type Figures = Schemas['RepeatFigures']
type Origin = Schemas['RepeatOrigin']

/** So many of the lines between first and last are in a block that they are told as one. */
const DENSE = 0.95
/** Of the groups of a side so many differ in a column alone, before it is proposed for leaving out. */
const TELLING = 0.2

/** How many rows of a side repeat, and what became of the others: all of them are in one figure. */
export function sideSentence(figures: Figures): string {
  if (figures.groups === 0) return `${counted(figures.rows, 'row')}, and no two share these values.`
  const parts = [
    figures.copies > 0 ? counted(figures.copies, 'group of copies', 'groups of copies') : '',
    figures.conflicts > 0 ? `${counted(figures.conflicts, 'group')} in conflict` : '',
  ].filter((part) => part !== '')
  const blank = figures.blank > 0 ? `, ${counted(figures.blank, 'row')} with nothing there` : ''
  return `${counted(figures.rows, 'row')}, ${counted(figures.combinations, 'different value')} in these columns${blank}. ${counted(figures.inGroups, 'row')} repeat in ${counted(figures.groups, 'group')}, ${count(figures.beyondFirst)} beyond the first of each: ${parts.join(', ')}.`
}

/** What stands out about the groups of a side. */
export function warnings(figures: Figures, there: string): string[] {
  return [
    ...(figures.onlyHere > 0
      ? [
          `${counted(figures.onlyHere, 'group')} that ${figures.onlyHere === 1 ? 'repeats here and does' : 'repeat here and do'} not exist in the ${there.toLowerCase()} at all.`,
        ]
      : []),
    ...(figures.byForm > 0
      ? [`${counted(figures.byForm, 'group')} that ${figures.byForm === 1 ? 'repeats' : 'repeat'} only because a difference of form is ignored.`]
      : []),
  ]
}

/** What repeats add to the total of a column, before and after. */
export const stakeSentence = (column: string, { all, beyondFirst, without }: Schemas['RepeatStake']): string =>
  `${column} adds up to ${amount(all)}; ${amount(beyondFirst)} of it stands beyond the first of each group: ${amount(without)} without.`

const lines = (from: number, to: number): string => (from === to ? `line ${count(from)}` : `lines ${count(from)} to ${count(to)}`)

/** Where repeats come from, for the pattern is usually the defect. */
export function originSentence(origin: Origin, figures: Figures): string {
  const { kind, rows, part, from, to, ofPart, ofFrom, ofTo } = origin
  if (kind === 'scattered') return `${counted(rows, 'row')} here and there.`
  if (kind === 'part') {
    return `${counted(rows, 'row')} of part ${part} (${lines(from, to)}) stand in part ${ofPart} already (${lines(ofFrom, ofTo)}).`
  }
  if (rows < DENSE * (to - from + 1)) {
    return `${counted(rows, 'row')} in ${lines(from, to)} stand ${count(from - ofFrom)} lines behind those that they repeat.`
  }
  const isWhole = rows >= DENSE * figures.combinations && rows * 2 >= DENSE * figures.rows
  return `${isWhole ? 'The whole table stands twice' : 'A block stands twice'}: ${lines(from, to)} are ${lines(ofFrom, ofTo)} again, ${counted(rows, 'row')}.`
}

const listed = (names: readonly string[]): string => names.slice(0, -1).join(', ') + (names.length > 1 ? ' and ' : '') + names.slice(-1).join('')

/** In which columns the rows of a group differ. */
export function patternName({ columns }: Pattern): string {
  if (columns.length === 0) return 'nothing differs'
  return columns.length > 4 ? `${columns.slice(0, 3).join(', ')} and ${columns.length - 3} more` : `only ${listed(columns)}`
}

/** The column of a side that alone keeps most groups from being copies, such as a time stamp of the load. */
export function proposedToLeaveOut(found: Found, side: Side, shared: readonly string[], left: readonly string[]): { column: string; groups: number } | null {
  const alone = found.patterns.filter((one) => one.side === side && one.columns.length === 1)
  const best = alone.find(({ columns: [column] }) => column !== undefined && !shared.includes(column) && !left.includes(column))
  const column = best?.columns[0]
  return best === undefined || column === undefined || best.groups < Math.max(2, TELLING * found.figures[side].groups) ? null : { column, groups: best.groups }
}

/** In which columns the rows of a side of a group differ, and those that the other side has for what differs there. */
export function comparedColumns(group: Group, side: Side, pairs: readonly Schemas['KeyColumn'][]): string[] {
  const other = side === 'source' ? 'target' : 'source'
  const counterparts = pairs.filter((pair) => group[other].differing.includes(pair[other])).map((pair) => pair[side])
  return [...new Set([...group[side].differing, ...counterparts])]
}

/** The places of the columns that a group is shown with: those in which its rows differ, what they share where they differ in nothing; or all. */
export function columnsShown(all: readonly string[], shared: readonly string[], compared: readonly string[], isAll: boolean): number[] {
  const named = compared.length === 0 ? shared : compared
  const wanted = all.map((name, place) => ({ name, place })).filter(({ name }) => isAll || named.includes(name))
  return wanted.map(({ place }) => place)
}

/** One column more or less, with the rows beyond the first that it would leave on each side. */
export interface Neighbour {
  /** of the source */
  column: string
  isMore: boolean
  beyond: Record<Side, number>
}

export function neighbours({ beside, others }: Found, chosen: readonly Schemas['KeyColumn'][]): Neighbour[] {
  const of =
    (isMore: boolean) =>
    (pair: Schemas['KeyColumn'], place: number): Neighbour => {
      const at = (side: Side): number => (isMore ? beside[side].more[place] : beside[side].less[place]) ?? 0
      return { column: pair.source, isMore, beyond: { source: at('source'), target: at('target') } }
    }
  return [...(chosen.length > 1 ? chosen.map(of(false)) : []), ...others.map(of(true))]
}

/** Repeats that are about as many as chance gives say nothing. */
const ABOUT = 0.8

export function chanceWarning({ rows, now, chance }: Found['beside']['source']): string {
  return now > 0 && chance >= ABOUT * now && now >= ABOUT * chance
    ? `So few values stand in these columns that chance alone puts about ${count(chance)} of ${counted(rows, 'row')} beyond the first of a group, and ${count(now)} are: most of these repeats say nothing.`
    : ''
}

type Part = Schemas['LookedPart']
/** So many characters from the start of a value may say what it belongs to. */
const STARTS = [1, 2, 3, 4, 6]

/** Parts of values that rows can share: of days and times what is coarser, of anything else its beginning. */
export function partsOf(columns: readonly { column: string; kind: Schemas['Kind'] }[]): { id: string; name: string }[] {
  return columns.flatMap(({ column, kind }) => {
    const parts: Part[] =
      kind === 'date' || kind === 'date-time'
        ? [...(kind === 'date-time' ? (['day'] as const) : []), ...(['month', 'year'] as const)].map((part) => ({ column, part }))
        : STARTS.map((length) => ({ column, part: 'start', length }))
    return parts.map((part) => ({ id: JSON.stringify(part), name: `${partName(part)} of ${column}` }))
  })
}

const partName = ({ part, length }: Part): string =>
  part !== 'start' ? `the ${part}` : length === 1 ? 'the first character' : `the first ${length ?? 1} characters`

export const partOf = (id: string): Part => JSON.parse(id) as Part

/** What the server calls the column of a part. */
export const columnOf = ({ column, part, length }: Part): string => (part === 'start' ? `${column} (first ${length ?? 1})` : `${column} (${part})`)
