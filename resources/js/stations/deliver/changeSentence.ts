import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'

const MOST = 8

/** What changed since a delivery, in one sentence: rows first, then columns. */
export function changeSentence({ since, rows, key, changes }: NonNullable<Schemas['DeliveryChanges']>): string {
  const said = rows === null ? ['no column stands in both'] : rowsSaid(rows, key)
  const shown = [...said, ...changes.slice(0, MOST)]
  const more = changes.length > MOST ? ` and ${count(changes.length - MOST)} more` : ''
  return `Since delivery ${since}: ${shown.join(', ')}${more}.`
}

function rowsSaid(rows: NonNullable<Schemas['RowChanges']>, key: readonly string[]): string[] {
  if (rows.gone + rows.new + rows.changed === 0) return [rows.same === 0 ? 'no rows' : `the same ${counted(rows.same, 'row')}`]
  return [
    `${counted(rows.new, 'row')} new`,
    `${count(rows.gone)} gone`,
    ...(key.length > 0 ? [`${count(rows.changed)} changed (by ${key.join(' + ')})`] : []),
    `${count(rows.same)} the same`,
  ]
}
