import type { Schemas } from '@/api/client'

type Cause = Schemas['FormCause']

/** The causes of form in the order of the catalogue, each with what a person ticks. */
export const formCauses: readonly { cause: Cause; name: string; example: string }[] = [
  { cause: 'spacing', name: 'spacing', example: 'ends, runs, no-break spaces' },
  { cause: 'invisible', name: 'invisible characters', example: 'zero-width, soft hyphen' },
  { cause: 'line-ends', name: 'line ends', example: 'CR LF and LF' },
  { cause: 'case', name: 'capitals', example: 'KB and kb' },
  { cause: 'unicode', name: 'Unicode form', example: 'é as one character or two' },
  { cause: 'accents', name: 'accents', example: 'é and e, ł and l, ß and ss' },
  { cause: 'punctuation', name: 'punctuation', example: 'hyphens, dots, quotes of another kind' },
  { cause: 'leading-zeros', name: 'leading zeros', example: '007 and 7' },
  { cause: 'number-form', name: 'number form', example: '1,234.50 and 1234.5' },
  { cause: 'date-form', name: 'date form', example: '2027-03-31 and 31/03/2027' },
  { cause: 'yes-no-form', name: 'yes/no form', example: 'Y and true' },
  { cause: 'blank-token', name: 'blank tokens', example: 'empty and NULL' },
]

export const kinds: readonly { kind: Schemas['Kind']; name: string; forgives: readonly Cause[] }[] = [
  { kind: 'text', name: 'text', forgives: [] },
  { kind: 'number', name: 'number', forgives: ['number-form'] },
  { kind: 'date', name: 'date', forgives: ['date-form'] },
  { kind: 'date-time', name: 'date and time', forgives: ['date-form'] },
  { kind: 'yes-no', name: 'yes / no', forgives: ['yes-no-form'] },
]

/** What may stand between groups of three digits. Nothing is guessed: what is not declared is no number. */
export const groupMarks = [
  { mark: '', label: 'nothing: 1234' },
  { mark: ',', label: 'a comma: 1,234' },
  { mark: '.', label: 'a point: 1.234' },
  { mark: ' ', label: 'a space: 1 234' },
  { mark: "'", label: "an apostrophe: 1'234" },
] as const

/** Forms that are forgiven because of a kind. */
export const formsOfKinds = kinds.flatMap(({ forgives }) => forgives)
export const formsOf = (kind: Schemas['Kind']): readonly Cause[] => kinds.find((known) => known.kind === kind)?.forgives ?? []
/** In the order of the catalogue. */
export const inOrder = (causes: readonly Cause[]): Cause[] => formCauses.map(({ cause }) => cause).filter((cause) => causes.includes(cause))

export const kindName = (kind: Schemas['Kind']): string => kinds.find((known) => known.kind === kind)?.name ?? kind

export const policies: readonly { policy: Schemas['RepeatsPolicy']['policy']; name: string; sentence: string }[] = [
  { policy: 'set-aside', name: 'exclude from comparison', sentence: 'All are listed and none is compared: no row is compared with one that may be another.' },
  { policy: 'keep-first', name: 'keep the first', sentence: 'The first is compared, the others are listed.' },
  { policy: 'keep-last', name: 'keep the last', sentence: 'The last is compared, the others are listed.' },
  {
    policy: 'keep-highest',
    name: 'keep the highest',
    sentence: 'The one with the highest or latest value is compared, the others are listed; where the values are equal, the first, and such keys are counted.',
  },
  {
    policy: 'keep-lowest',
    name: 'keep the lowest',
    sentence: 'The one with the lowest or earliest value is compared, the others are listed; where the values are equal, the first, and such keys are counted.',
  },
  {
    policy: 'collapse-copies',
    name: 'collapse exact copies',
    sentence: 'Rows equal in every column become one; rows that differ are set aside. Columns may be named in which copies may differ.',
  },
  {
    policy: 'pair-in-order',
    name: 'pair in order',
    sentence: 'The first meets the first, the second the second; what is over is missing or extra. Holds for both sides.',
  },
]

/** What a pair lets pass, as short words for its row. */
export function passes(pair: Partial<Schemas['ColumnPair']>): string[] {
  const rules = (pair.forgives ?? []).map((cause) => formCauses.find((known) => known.cause === cause)?.name ?? cause)
  if (pair.tolerance !== undefined) {
    const { by, most } = pair.tolerance
    rules.push(by === 'absolute' ? `within ${most}` : by === 'relative' ? `within ${most} of the larger` : `within ${most} ${by}`)
  }
  if (pair.rounding !== undefined) rules.push(`rounded to ${pair.rounding.places} places`)
  if (pair.crosswalk !== undefined && pair.crosswalk.length > 0) rules.push(`crosswalk: ${pair.crosswalk.length}`)
  return rules
}
