import { count } from '@/format/counts'

/** A figure on a screen with the name of what it counts: a path in the result of the engine, or in an answer of the API. */
export interface Figure {
  name: string
  text: string
}

/** A sentence in pieces: words as they are, figures with their names. */
export type Said = readonly (string | Figure)[]

/** The path, such as "columns/fee/values/right"; a name of a column may hold anything. */
export const named = (...path: readonly (string | number)[]): string => path.map((one) => encodeURIComponent(one)).join('/')

export const figure = (name: string, value: number | string): Figure => ({ name, text: typeof value === 'number' ? count(value) : value })

/** "1 row", "2 rows", with the figure named. */
export const figures = (name: string, value: number, one: string, many = `${one}s`): Said => [figure(name, value), ` ${value === 1 ? one : many}`]

export const inWordsOf = (said: Said): string => said.map((piece) => (typeof piece === 'string' ? piece : piece.text)).join('')

/** The sentences one after the other, such as "3 missing, 4 extra". */
export const joined = (said: readonly Said[], between = ', '): Said => said.flatMap((one, place) => (place === 0 ? one : [between, ...one]))
