import type { Schemas } from '@/api/client'
import { named } from '@/format/said'

const BOTH = ['repeated', 'unkeyed', 'refused'] as const

/** What counts the rows of a class, or all that do not agree (null): the engine counts by side. */
export function rowsName(rowClass: Schemas['RowClass'] | null): string {
  if (rowClass === null) return [rowsName('missing'), rowsName('extra'), ...BOTH.map(rowsName), rowsName('changed')].join(' + ')
  if ((BOTH as readonly string[]).includes(rowClass)) return `rows/source/${rowClass} + rows/target/${rowClass}`
  return `rows/${rowClass === 'extra' ? 'target' : 'source'}/${rowClass}`
}

/** What counts some rows of a class: by reason, by how they met, by part, or by side. */
export function sliceName({ class: rowClass, reason, bridged, side, part }: Schemas['Filter']): string {
  if (rowClass === undefined) return 'tally/rowLists'
  if (reason !== undefined) return named('reasons', rowClass, reason)
  if (bridged !== undefined) return named('bridged', rowClass)
  return side === undefined || part === undefined ? named('rows', side ?? 'source', rowClass) : named('parts', rowClass, side, part)
}

/** What counts the cells of a column pair that differ. */
export const cellsName = (source: string): string => ['changed', 'blanked', 'filled'].map((one) => named('columns', source, one)).join(' + ')
