import type { Schemas } from '@/api/client'
import type { Subject } from '@/stations/review/filter'

/** One bar of the picture: findings of a row class or of a column pair, as far as the source has something (up) and the target has (down). */
export interface Bar {
  id: string
  name: string
  parts: Part[]
}

export interface Part {
  /** Above the line stands what the source has alone, below it what the target has alone; what both have, and have otherwise, lies across it. */
  at: 'above' | 'across' | 'below'
  words: string
  findings: number
  subject: Subject
}

/** What differs by row class, then by column pair in the order of their weight. */
export function barsOf(tally: Schemas['Tally']): Bar[] {
  const rows = new Map(tally.rowLists.map((list) => [list.class, list.rows]))
  const ofRows = (rowClass: Schemas['RowClass'], at: Part['at'], words: string): Part[] => {
    const findings = rows.get(rowClass) ?? 0
    return findings === 0 ? [] : [{ at, words, findings, subject: { class: rowClass } }]
  }
  const wholeRows: Part[] = [
    ...ofRows('missing', 'above', 'missing rows'),
    ...ofRows('repeated', 'across', 'repeated rows'),
    ...ofRows('extra', 'below', 'extra rows'),
  ]
  const pairs = new Map<string, Bar>()
  const sides: Record<Schemas['CellClass'], Part['at']> = { blanked: 'above', changed: 'across', filled: 'below' }
  for (const pattern of tally.patterns) {
    const bar = pairs.get(pattern.pair) ?? { id: pattern.pair, name: pattern.source, parts: [] }
    pairs.set(pattern.pair, bar)
    const part = bar.parts.find((one) => one.subject.cellClass === pattern.class)
    if (part === undefined) {
      bar.parts.push({
        at: sides[pattern.class],
        words: `${pattern.class} cells`,
        findings: pattern.cells,
        subject: { pair: pattern.pair, cellClass: pattern.class },
      })
    } else {
      part.findings += pattern.cells
    }
  }
  const weight = (bar: Bar): number => bar.parts.reduce((sum, part) => sum + part.findings, 0)
  return [
    ...(wholeRows.length > 0 ? [{ id: '', name: 'whole rows', parts: wholeRows }] : []),
    ...[...pairs.values()].sort((one, other) => weight(other) - weight(one)),
  ]
}

/** Heights on a square-root scale, so that three cells beside a million are still seen; in percent of the heaviest. */
export function heightOf(findings: number, heaviest: number): number {
  return findings === 0 ? 0 : Math.max(4, Math.sqrt(findings / Math.max(1, heaviest)) * 100)
}
