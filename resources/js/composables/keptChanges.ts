import type { Schemas } from '@/api/client'

type Draft = Schemas['PlanDraft']

/** What can be taken back, and what was, each the latest last. */
interface Changes {
  earlier: Draft[]
  undone: Draft[]
}

/** A draft of very many columns has tens of kilobytes, and a page may keep some millions. */
const MOST = 30
/** A station takes back what was changed at it, and nothing that its reader cannot see. */
export type Station = 'prepare' | 'match'
const name = (dataset: number, station: Station): string => `nine-tally:changes:${station}:${dataset}`

/** Keeps the changes of a draft until the window is closed, so that a page that is loaded again can take them back. */
export function keepChanges(dataset: number, station: Station, draft: Draft, { earlier, undone }: Changes): void {
  try {
    sessionStorage.setItem(name(dataset, station), JSON.stringify({ draft, earlier: earlier.slice(-MOST), undone: undone.slice(-MOST) }))
  } catch {
    // There is no room: what was kept belongs to a draft that is no more.
    sessionStorage.removeItem(name(dataset, station))
  }
}

/** The changes that led to a draft. If it was changed since, by somebody else or elsewhere, they lead to another: then there are none. */
export function keptChanges(dataset: number, station: Station, draft: Draft): Changes {
  const kept = JSON.parse(sessionStorage.getItem(name(dataset, station)) ?? '{}') as Partial<Changes & { draft: Draft }>
  return JSON.stringify(kept.draft) === JSON.stringify(draft) ? { earlier: kept.earlier ?? [], undone: kept.undone ?? [] } : { earlier: [], undone: [] }
}
