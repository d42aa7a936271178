import type { Schemas } from '@/api/client'
import type { ReadAs, Token } from '@/composables/draftChanges'
import { count, counted } from '@/format/counts'
import { declaredInWords } from '@/format/forms'
import { kindName } from '@/format/rules'

type AdvisedForm = Schemas['AdvisedForm']

/** Something that is proposed for a pair, with what it would settle: taken at a press, or one of several ways chosen. */
export interface Guess {
  /** of the source, or of the target where a token is proposed for it */
  source: string
  says: string
  settles: string
  rows: AdvisedForm['rows']
  ways: readonly { name: string; settles: string; readAs: readonly ReadAs[]; tokens: readonly Token[] }[]
}

const ofWhat = (form: AdvisedForm): string => (form.isOfRows ? counted(form.compared, 'row that meets', 'rows that meet') : counted(form.compared, 'value'))

function settles(form: AdvisedForm, agree: number): string {
  if (form.compared === 0) return 'no values of both sides could be held against each other'
  return `${count(agree)} of ${ofWhat(form)} then agree, ${count(form.asText)} as they stand`
}

function declares(way: AdvisedForm['ways'][number], labels: { source: string; target: string }): string {
  return (['source', 'target'] as const)
    .flatMap((side) => (declaredInWords(way[side]).length === 0 ? [] : [`${labels[side]}: ${declaredInWords(way[side]).join(', ')}`]))
    .join('; ')
}

export function guessesOf(advice: Schemas['Advice']['forms'], pairs: readonly Schemas['KeyColumn'][], labels: { source: string; target: string }): Guess[] {
  const isPaired = ({ source, target }: Schemas['KeyColumn']): boolean => pairs.some((pair) => pair.source === source && pair.target === target)
  const forms = advice.forms.filter(isPaired).map((form): Guess => {
    const kind = kindName(form.kind)
    const [first] = form.ways
    const said = first === undefined ? '' : declares(first, labels)
    return {
      source: form.source,
      says: form.ways.length > 1 ? `could be read as ${kind} in several ways. Which is it?` : `could be read as ${kind}${said === '' ? '' : ` (${said})`}`,
      settles: form.ways.length > 1 ? '' : settles(form, first?.agree ?? 0),
      rows: form.rows,
      ways: form.ways.map((way) => ({
        name: declares(way, labels) || 'as they stand',
        settles: settles(form, way.agree),
        readAs: [{ source: form.source, target: form.target, kind: form.kind, declares: { source: way.source, target: way.target } }],
        tokens: [],
      })),
    }
  })
  const tokens = advice.tokens.flatMap((token): Guess[] => {
    const pair = pairs.find((one) => one[token.side] === token.column)
    if (pair === undefined) return []
    return [
      {
        source: pair.source,
        says: `"${token.token}" of ${labels[token.side]} could mean blank`,
        settles: `where it stands the other side is blank in ${count(token.blank)} of ${counted(token.rows, 'row')}`,
        rows: [],
        ways: [{ name: '', settles: '', readAs: [], tokens: [token] }],
      },
    ]
  })
  return [...forms, ...tokens]
}

/** Those that are not asked, as one change. */
export function certain(guesses: readonly Guess[]): { readAs: ReadAs[]; tokens: Token[]; count: number } {
  const ways = guesses.flatMap(({ ways: all }) => (all.length === 1 ? all : []))
  return { readAs: ways.flatMap((way) => way.readAs), tokens: ways.flatMap((way) => way.tokens), count: ways.length }
}
