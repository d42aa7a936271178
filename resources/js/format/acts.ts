import type { Schemas } from '@/api/client'

type Act = Schemas['Ruling']

/** Why it was ruled so, with the ticket and who is asked. */
export const whyOf = ({ reason, ticket, asked }: Pick<Act, 'reason' | 'ticket' | 'asked'>, ...further: string[]): string =>
  [reason, ticket ?? '', asked === null ? '' : `asked: ${asked}`, ...further].filter((part) => part !== '').join('; ')

/** What else an act covers, seen from one finding of it. */
export function togetherWith({ scope }: Pick<Act, 'scope'>): string {
  if (scope === 'row' || scope === 'cell') return ''
  return `, with ${scope === 'class' ? 'its whole class' : scope === 'pattern' ? 'its whole pattern' : 'others'}`
}
