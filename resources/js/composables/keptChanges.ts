import type { Schemas } from '@/api/client'

type Draft = Schemas['PlanDraft']

/** What can be taken back, and what was, each the latest last. */
interface Changes {
  earlier: Draft[]
  undone: Draft[]
}

/** A draft of very many columns has tens of kilobytes, and a page may keep some millions. */
const MOST = 30
const name = (dataset: number): string => `nine-tally:changes:${dataset}`

/** Keeps the changes of a draft until the window is closed, so that a page that is loaded again can take them back. */
export function keepChanges(dataset: number, draft: Draft, { earlier, undone }: Changes): void {
  try {
    sessionStorage.setItem(name(dataset), JSON.stringify({ draft, earlier: earlier.slice(-MOST), undone: undone.slice(-MOST) }))
  } catch {
    // There is no room: what was kept belongs to a draft that is no more.
    sessionStorage.removeItem(name(dataset))
  }
}

/** The changes that led to a draft. If somebody has changed it since, they lead to another: then there are none. */
export function keptChanges(dataset: number, draft: Draft): Changes {
  const kept = JSON.parse(sessionStorage.getItem(name(dataset)) ?? '{}') as Partial<Changes & { draft: Draft }>
  return JSON.stringify(kept.draft) === JSON.stringify(draft) ? { earlier: kept.earlier ?? [], undone: kept.undone ?? [] } : { earlier: [], undone: [] }
}
