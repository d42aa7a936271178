import type { Schemas } from '@/api/client'

type Policy = Schemas['RepeatsPolicy']
export type OwnPolicy = Schemas['DifferingPolicy']

const isOf = (columns: readonly string[]) => {
  const wanted = JSON.stringify([...columns].sort())
  return ({ differ }: OwnPolicy): boolean => JSON.stringify([...differ].sort()) === wanted
}

const withoutOwn = (policy: Policy): Policy => Object.fromEntries(Object.entries(policy).filter(([part]) => part !== 'own')) as Policy

/** The policy that keys have of their own whose rows differ in just these columns. */
export const ownOf = (policy: Policy, columns: readonly string[]): OwnPolicy | undefined => policy.own?.find(isOf(columns))

/** Null: what holds for all others holds for them too. */
export function withOwn(policy: Policy, columns: readonly string[], own: Omit<OwnPolicy, 'differ'> | null): Policy {
  const isOther = (one: OwnPolicy): boolean => !isOf(columns)(one)
  const all = [...(policy.own ?? []).filter(isOther), ...(own === null ? [] : [{ ...own, differ: [...columns] }])]
  return all.length === 0 ? withoutOwn(policy) : { ...policy, own: all }
}

/** Another policy for the others: what has one of its own keeps it, but where rows are paired in order there is none. */
export const keepingOwn = (policy: Policy, was: Policy): Policy => {
  return was.own === undefined || policy.policy === 'pair-in-order' ? withoutOwn(policy) : { ...policy, own: was.own }
}
