import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { formCauses } from '@/format/rules'

/** What a pattern would be as a rule of its pair, with how many of its cells that lets pass. */
export interface RuleOfPattern {
  label: string
  apply: (pair: Schemas['ColumnPair']) => Partial<Schemas['ColumnPair']>
}

type Offer = Schemas['PatternRules']['items'][number]

const MODES: Record<string, string> = { 'half-up': 'halves up', 'half-even': 'halves to the even digit', 'half-down': 'halves down', cut: 'cut' }

export function labelOf({ rule }: Offer): string {
  if (rule.forgives !== undefined) {
    const names = rule.forgives.map((cause) => formCauses.find((form) => form.cause === cause)?.name ?? cause)
    return `let ${names.join(' and ')} pass`
  }
  if (rule.crosswalk !== undefined) return `a crosswalk of ${counted(rule.crosswalk.length, 'value pair')}`
  if (rule.rounding !== undefined) {
    return `rounded to ${counted(rule.rounding.places, 'decimal')}, ${MODES[rule.rounding.mode] ?? rule.rounding.mode}`
  }
  return `within ${rule.tolerance?.most ?? ''}`
}

/** The offer as a change of a pair that may have rules already: none that is there is taken away. */
export function ruleOf(offer: Offer): RuleOfPattern {
  const { forgives, crosswalk, rounding, tolerance } = offer.rule
  return {
    label: labelOf(offer),
    apply: (pair) => {
      if (forgives !== undefined) return { forgives: [...new Set([...(pair.forgives ?? []), ...forgives])] }
      if (crosswalk === undefined) return rounding === undefined ? { tolerance } : { rounding }
      const entries = new Map([...crosswalk, ...(pair.crosswalk ?? [])].map(({ source, target }) => [source, target]))
      return { crosswalk: [...entries].map(([source, target]) => ({ source, target })) }
    },
  }
}
