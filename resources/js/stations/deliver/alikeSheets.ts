import type { Schemas } from '@/api/client'

type Receipt = Schemas['Receipt']

const sheetOf = (receipt: Receipt): string | undefined => receipt.preview?.format.sheet

/** Other sheets of the same bytes that wait as well. */
export const sheetsBeside = (receipt: Receipt, all: readonly Receipt[]): Receipt[] =>
  sheetOf(receipt) === undefined ? [] : all.filter((other) => other.id !== receipt.id && other.digest === receipt.digest && sheetOf(other) !== undefined)

/** Sheets with the columns of the one that is read that do not wait yet. */
export function sheetsToTake(receipt: Receipt, all: readonly Receipt[]): string[] {
  const waiting = sheetsBeside(receipt, all).map(sheetOf)
  const sheets = receipt.preview?.format.sheets ?? []
  return sheets.filter(({ name, alike }) => alike === true && !waiting.includes(name)).map(({ name }) => name)
}

/** What the rows of a part are labelled with unless somebody says otherwise: the sheet, where its workbook is several parts. */
export const usualLabel = (receipt: Receipt, all: readonly Receipt[]): string =>
  sheetsBeside(receipt, all).length > 0 ? (sheetOf(receipt) ?? receipt.fileName) : receipt.fileName
