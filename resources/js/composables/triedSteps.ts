import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'

/** What is prepared: a side, or a reference by its name. */
export type Prepared = Side | { reference: string }
export const isSide = (prepared: Prepared): prepared is Side => typeof prepared === 'string'
export const isSame = (one: Prepared, other: Prepared): boolean => JSON.stringify(one) === JSON.stringify(other)

/** What a draft says about a side or a reference. */
export const rulesOf = (draft: Schemas['PlanDraft'] | null, prepared: Prepared): Schemas['ReferenceRules'] | Schemas['SideRules'] | undefined =>
  isSide(prepared) ? draft?.sides?.[prepared] : draft?.references?.[prepared.reference]

/** Steps of a draft as the server is asked about them: of a side or a reference, looked at from one of them. */
export function askedOf(draft: Schemas['PlanDraft'] | null, prepared: Prepared, chosen: string | null): Schemas['TriedSteps'] {
  const { preparation = [], ...rules }: Schemas['ReferenceRules'] | Schemas['SideRules'] = rulesOf(draft, prepared) ?? {}
  const reads: Schemas['Reading'] & { columns?: Record<string, Schemas['Reading']> } = { ...rules, ...{ repeats: undefined, key: undefined } }
  return { ...whose(prepared), preparation, reads, references: draft?.references ?? {}, chosen }
}

const whose = (prepared: Prepared): { side: Side } | { reference: string } => (isSide(prepared) ? { side: prepared } : prepared)
