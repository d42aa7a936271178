import type { Schemas } from '@/api/client'
import { formCauses } from '@/format/rules'

/** What a pattern would be as a rule of its pair: causes of form are forgiven, a translation becomes a crosswalk. Other differences of value pass by a ruling alone. */
export interface RuleOfPattern {
  label: string
  apply: (pair: Schemas['ColumnPair']) => Partial<Schemas['ColumnPair']>
}

export function ruleOfPattern(pattern: Schemas['Pattern']): RuleOfPattern | null {
  const causes = pattern.cause.split('+')
  const known = causes.map((cause) => formCauses.find((form) => form.cause === cause))
  if (known.every((form) => form !== undefined)) {
    const forms = known.map(({ cause }) => cause)
    return {
      label: `Let ${known.map(({ name }) => name).join(' and ')} pass in ${pattern.source}`,
      apply: (pair) => ({ forgives: [...new Set([...(pair.forgives ?? []), ...forms])] }),
    }
  }
  if (pattern.cause === 'translated' && pattern.examples.length > 0) {
    return {
      label: `Make a crosswalk of ${pattern.source} from ${pattern.examples.length} value pairs`,
      apply: (pair) => {
        const entries = new Map((pair.crosswalk ?? []).map(({ source, target }) => [source, target]))
        for (const { source, target } of pattern.examples) if (!entries.has(source)) entries.set(source, target)
        return { crosswalk: [...entries].map(([source, target]) => ({ source, target })) }
      },
    }
  }
  return null
}
