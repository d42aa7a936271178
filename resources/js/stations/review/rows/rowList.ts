import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'

export type Which = Schemas['AskedRowList']['which']
type Counts = NonNullable<Schemas['RowList']['found']>['counts']

const all = ({ alone, both, unkeyed }: Counts['source']): number => alone + both + unkeyed

/** Where rows can stand, in words, with how many do once that is known. */
export function saidOf(labels: { source: string; target: string }, counts: Counts | undefined): { which: Which; name: string; rows: string }[] {
  const rows = (number: number | undefined): string => (number === undefined ? '' : counted(number, 'row'))
  const [source, target] = [labels.source.toLowerCase(), labels.target.toLowerCase()]
  return [
    { which: 'either', name: 'on one side alone', rows: rows(counts && counts.source.alone + counts.target.alone) },
    { which: 'source', name: `in the ${source} alone`, rows: rows(counts?.source.alone) },
    { which: 'target', name: `in the ${target} alone`, rows: rows(counts?.target.alone) },
    { which: 'both', name: 'on both sides', rows: rows(counts && counts.source.both + counts.target.both) },
    { which: 'all', name: 'anywhere', rows: rows(counts && all(counts.source) + all(counts.target)) },
  ]
}

/** What a step looks up, once it says all that a look-up needs. */
export function taking({ on, take, forgives }: Schemas['Step'], reference: string | undefined): NonNullable<Schemas['AskedRowList']['lookUps']> {
  if (reference === undefined || on === undefined || on.length === 0 || take === undefined || take.length === 0) return []
  return [{ reference, on: [...on], take: take.map((one) => one.reference), ...(forgives === undefined ? {} : { forgives }) }]
}
