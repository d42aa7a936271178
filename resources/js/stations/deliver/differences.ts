import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { kindName } from '@/format/rules'

type Difference = Schemas['ProfileRow']['differs'][number]

/** What differs between two columns, in a few words; the source is always told first. */
export function differenceInWords({ fact, source, target }: Difference): string {
  const both = (what: string): string => `${what} ${source ?? ''} in the source, ${target ?? ''} in the target`
  switch (fact) {
    case 'only':
      return source === null ? 'only in the target' : 'only in the source'
    case 'blank':
      return `blank in ${counted(Number(source), 'row')} of the source and ${counted(Number(target), 'row')} of the target`
    case 'kind':
      return `${kindName(source as Schemas['Kind'])} in the source, ${kindName(target as Schemas['Kind'])} in the target`
    case 'form':
      return 'written in another form'
    case 'values':
      return [source === null ? '' : `only in the source: ${source}`, target === null ? '' : `only in the target: ${target}`].filter(Boolean).join('; ')
    case 'shorter':
      return `at most ${source ?? ''} characters in the source, ${target ?? ''} in the target`
    case 'longest':
      return both('longest')
    default:
      return both(fact)
  }
}

/** Those in which most differs first; columns of which nothing differs stay in the order of the file. */
export const byWeight = (rows: readonly Schemas['ProfileRow'][]): Schemas['ProfileRow'][] => [...rows].sort((one, other) => other.weight - one.weight)
