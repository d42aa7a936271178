import type { Schemas } from '@/api/client'
import { formsOf, inOrder } from '@/format/rules'

type Draft = Schemas['PlanDraft']
type Reading = Schemas['Reading']
type Step = Schemas['Step']
export type Side = 'source' | 'target'

/** A pair, the kind to read it as, and what its columns declare for that. */
export interface ReadAs {
  source: string
  target: string
  kind: Schemas['Kind']
  declares: Partial<Record<Side, Reading | undefined>>
}
export type Token = Pick<Schemas['Advice']['forms']['tokens'][number], 'side' | 'column' | 'token'>
export type Rung = Pick<Schemas['KeyMeeting']['rungs'][number], 'column' | 'cause' | 'entries' | 'source' | 'target'>
export type Fold = Pick<NonNullable<Schemas['Advice']['fold']>, 'side' | 'columns' | 'namesInto' | 'valuesInto'>

function declared(draft: Draft, side: Side, column: string, reading: Reading): Draft {
  if (Object.keys(reading).length === 0) return draft
  const rules = draft.sides?.[side] ?? {}
  return { ...draft, sides: { ...draft.sides, [side]: { ...rules, columns: { ...rules.columns, [column]: { ...rules.columns?.[column], ...reading } } } } }
}

/** A pair that gets a new kind forgives its own form and nothing else. */
export function readSo(draft: Draft, kinds: readonly ReadAs[]): Draft {
  const columnPairs = draft.columnPairs.map((column) => {
    const kind = kinds.find(({ source }) => source === column.source)?.kind ?? column.kind
    return kind === column.kind ? column : { ...column, kind, forgives: [...new Set([...(column.forgives ?? []), ...formsOf(kind)])] }
  })
  return kinds.reduce(
    (next, one) => declared(declared(next, 'source', one.source, one.declares.source ?? {}), 'target', one.target, one.declares.target ?? {}),
    { ...draft, columnPairs },
  )
}

/** Values that mean blank in a column, beside those that do already. */
export const withTokens = (draft: Draft, tokens: readonly Token[]): Draft =>
  tokens.reduce((next, { side, column, token }) => {
    const rules = next.sides?.[side]
    const known = rules?.columns?.[column]?.blankTokens ?? rules?.blankTokens ?? []
    return known.includes(token) ? next : declared(next, side, column, { blankTokens: [...known, token] })
  }, draft)

/** Columns of the key forgive causes of form, with what both sides declare for that; a crosswalk is a step of the source. */
export const withRungs = (draft: Draft, rungs: readonly Rung[], freshId: () => string): Draft =>
  rungs.reduce((next, rung) => {
    const { column, cause, source, target } = rung
    const ofKey = next.key.find((one) => one.source === column)
    if (ofKey === undefined) return next
    if (cause === 'crosswalk') return withSteps(next, [rung], freshId)
    const key = next.key.map((one) => (one === ofKey ? { ...one, forgives: inOrder([...(one.forgives ?? []), cause]) } : one))
    return declared(declared({ ...next, key }, 'source', ofKey.source, source), 'target', ofKey.target, target)
  }, draft)

/** The step that takes a cause of form away from a column; causes of which nobody can say what the value should be have none. */
function stepOf(cause: Rung['cause'], column: string, reading: Reading): Omit<Step, 'id'> | null {
  const tidy = (...actions: readonly string[]): Omit<Step, 'id'> => ({ kind: 'tidy-text', columns: [column], actions: actions.map((action) => ({ action })) })
  const read = (kind: Step['kind']): Omit<Step, 'id'> => ({ kind, columns: [column], ...(Object.keys(reading).length > 0 && { reading }) })
  switch (cause) {
    case 'spacing':
      return tidy('trim', 'squeeze')
    case 'invisible':
      return tidy('remove-invisible')
    case 'case':
      return tidy('upper')
    case 'unicode':
      return tidy('compatible')
    case 'leading-zeros':
      return tidy('strip-zeros')
    case 'number-form':
      return read('read-number')
    case 'date-form':
      return read('read-date')
    case 'yes-no-form':
      return read('read-yes-no')
    default:
      return null
  }
}
export const hasStep = (cause: Rung['cause']): boolean => stepOf(cause, '', {}) !== null

const withStep = (draft: Draft, side: Side, step: Step): Draft => ({
  ...draft,
  sides: { ...draft.sides, [side]: { ...draft.sides?.[side], preparation: [...(draft.sides?.[side]?.preparation ?? []), step] } },
})

/** Columns of a side become rows, under the names that the other side has for them; what was paired with one of them is let go, and what now has its name is paired. */
export function withFold(draft: Draft, { side, columns, namesInto, valuesInto }: Fold, freshId: () => string): Draft {
  const isGone = (column: { source: string; target: string }): boolean => columns.includes(column[side])
  const pairs = [namesInto, valuesInto].map((name) => ({ id: '', source: name, target: name, kind: 'text' as const }))
  const taken = draft.columnPairs.filter((column) => !isGone(column) && ![namesInto, valuesInto].includes(column[side === 'source' ? 'target' : 'source']))
  return withStep({ ...draft, key: draft.key.filter((column) => !isGone(column)), columnPairs: [...taken, ...pairs] }, side, {
    id: freshId(),
    kind: 'columns-into-rows',
    columns: [...columns],
    namesInto,
    valuesInto,
  })
}

/** Steps that write both columns alike, behind those that are there. */
export function withSteps(draft: Draft, rungs: readonly Rung[], freshId: () => string): Draft {
  return rungs.reduce((next, rung) => {
    const ofKey = next.key.find((one) => one.source === rung.column)
    if (ofKey === undefined) return next
    if (rung.cause === 'crosswalk') return withStep(next, 'source', { id: freshId(), kind: 'crosswalk', column: ofKey.source, entries: [...rung.entries] })
    const sides = { ...next.sides }
    for (const side of ['source', 'target'] as const) {
      const step = stepOf(rung.cause, ofKey[side], rung[side])
      const earlier = sides[side]?.preparation ?? []
      if (step !== null) sides[side] = { ...sides[side], preparation: [...earlier, { id: freshId(), ...step }] }
    }
    return { ...next, sides }
  }, draft)
}
