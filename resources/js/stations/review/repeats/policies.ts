import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { policies as known } from '@/format/rules'
import { count } from '@/format/counts'
import { signed } from '@/format/amounts'
import { keepingOwn } from '@/format/ownPolicies'

export type Policy = Schemas['RepeatsPolicy']
export type Policies = Schemas['PoliciesOfSides']
export type Tried = Schemas['PoliciesTried']['tried'][number]
/** For which sides a policy is tried; the other one keeps what the plan says. */
export type Of = Side | 'both'

/** A policy that is tried: what it is called, and what it sets for both sides. */
export interface Candidate {
  id: string
  name: string
  policies: Policies
}

/** The column whose highest or lowest value decides, with what it is read as. */
export interface Deciding {
  source: string
  target: string
  kind: Schemas['Kind']
}

const nameOf = ({ policy, column, then, except, own }: Policy): string => {
  const name = known.find((one) => one.policy === policy)?.name ?? policy
  const by = column === undefined ? '' : ` ${column}`
  const second = then === undefined ? '' : `, then ${then.column}`
  const others = own === undefined ? '' : own.length === 1 ? ', otherwise in 1 case' : `, otherwise in ${own.length} cases`
  return `${name}${by}${second}${except === undefined || except.length === 0 ? '' : `, whatever ${except.join(', ')}`}${others}`
}

/** What the plan says, in the words of the list of policies. */
export function nameOfNow({ source, target }: Policies): string {
  return nameOf(source) === nameOf(target) ? nameOf(source) : `${nameOf(source)} in the source, ${nameOf(target)} in the target`
}

/** All policies that can be tried, without the one that the plan has. */
export function candidates(now: Policies, of: Of, deciding: Deciding | null, except: Readonly<Record<Side, string[]>>): Candidate[] {
  const made = (policy: (side: Side) => Policy): Candidate => {
    const isTried = (side: Side): boolean => of === 'both' || of === side
    // Pairing in order holds for both sides or for none.
    const other = (side: Side): Policy => (now[side].policy === 'pair-in-order' ? { policy: 'set-aside' } : now[side])
    const ofSide = (side: Side): Policy => (isTried(side) ? keepingOwn(policy(side), now[side]) : other(side))
    const policies = { source: ofSide('source'), target: ofSide('target') }
    const name = nameOf(policies[of === 'target' ? 'target' : 'source'])
    return { id: JSON.stringify(policies), name, policies }
  }
  const byColumn =
    deciding === null
      ? []
      : (['keep-highest', 'keep-lowest'] as const).map((policy) => made((side) => ({ policy, column: deciding[side], kind: deciding.kind })))
  const all = [
    ...(['set-aside', 'keep-first', 'keep-last'] as const).map((policy) => made(() => ({ policy }))),
    ...byColumn,
    made((side) => (except[side].length > 0 ? { policy: 'collapse-copies', except: except[side] } : { policy: 'collapse-copies' })),
    ...(of === 'both' ? [made(() => ({ policy: 'pair-in-order' }))] : []),
  ]
  const known = JSON.stringify({ source: now.source, target: now.target })
  return all.filter(({ id }) => id !== known)
}

/** The figures of a policy, by the heading that they stand under. */
export interface Figures {
  compared: number
  notKept: number
  setAside: number
  undecided: number
  agreed: number
  changed: number
  missing: number
  extra: number
}

export const figuresOf = ({ agreed, changed, source, target }: Tried): Figures => ({
  compared: source.compared + target.compared,
  notKept: source.not_kept + target.not_kept,
  setAside: source.set_aside + target.set_aside,
  undecided: source.undecided + target.undecided,
  agreed,
  changed,
  missing: source.unmatched,
  extra: target.unmatched,
})

export const COLUMNS: readonly { id: keyof Figures; name: string; about: string }[] = [
  { id: 'compared', name: 'compared', about: 'rows of both sides that are compared' },
  { id: 'notKept', name: 'left out', about: 'rows of both sides that stand back behind the one that is kept' },
  { id: 'setAside', name: 'set aside', about: 'rows of both sides of which none with their key is compared' },
  { id: 'undecided', name: 'undecided', about: 'keys of several rows that are equally good, so that the first is kept' },
  { id: 'agreed', name: 'agree', about: 'pairs of rows that agree' },
  { id: 'changed', name: 'differ', about: 'pairs of rows that differ' },
  { id: 'missing', name: 'missing', about: 'rows that the source has alone' },
  { id: 'extra', name: 'extra', about: 'rows that the target has alone' },
]

/** By how much a figure would move: "+12", or nothing. */
export const moved = (figure: number, now: number | undefined): string =>
  now === undefined || figure === now ? '' : figure > now ? `+${count(figure - now)}` : `−${count(now - figure)}`

/** What is left out of a total, of both sides. */
export const leftOutOf = ({ leftOut }: Tried, side: Side): string => signed(leftOut[side])

/** Two at most are held beside each other: the one that was chosen first goes. */
export const withChosen = (chosen: readonly string[], id: string): string[] =>
  chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id].slice(-2)

/** Which of two policies keep a row: for each whether it does, or null where it compares all rows of the group, or none. */
export function keptBy(kept: Schemas['TriedGroupSide']['kept'], row: { part: number; line: number }): (boolean | null)[] {
  return kept.map((place) => (place === null || place.line === 0 ? null : place.part === row.part && place.line === row.line))
}

/** As what the values of a column are put in order, as far as some of them tell. */
export function kindOf(examples: readonly string[]): Schemas['Kind'] {
  const all = (pattern: RegExp): boolean => examples.length > 0 && examples.every((value) => value === '' || pattern.test(value))
  if (all(/^-?\d+(\.\d+)?$/)) return 'number'
  if (all(/^\d{4}-\d{2}-\d{2}$/)) return 'date'
  return all(/^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/) ? 'date-time' : 'text'
}
