import { freshStepId } from '@/format/freshStepId'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { kindOf } from '@/stations/prepare/stepKinds'
import { isSide, rulesOf, type Prepared } from '@/composables/triedSteps'

type Step = Schemas['Step']

/** The steps of both sides and of references, and what a person does to them; what was added or copied is chosen. */
export function useSteps(
  draft: () => Schemas['PlanDraft'] | null,
  set: { prepareSide: (side: Side, steps: readonly Step[]) => void; prepareReference: (name: string, rules: Schemas['ReferenceRules']) => void },
  choose: (of: Prepared, id: string | null) => void,
) {
  const stepsOf = (of: Prepared): readonly Step[] => rulesOf(draft(), of)?.preparation ?? []

  function keep(of: Prepared, steps: readonly Step[]): void {
    if (isSide(of)) set.prepareSide(of, steps)
    else set.prepareReference(of.reference, { preparation: [...steps] })
  }

  /** Steps that wait for the first choice. */
  const waiting = new Set<string>()

  /** @param columns those that come out of the last step, and those of them whose names are alike */
  function add(of: Prepared, kind: string, columns: readonly string[], alike: readonly string[] = []): void {
    const known = kindOf(kind)
    const step = { id: freshStepId(), kind, ...(known?.waits === true && { off: true }), ...known?.make(columns, alike) }
    if (known?.waits === true) waiting.add(step.id)
    keep(of, [...stepsOf(of), step])
    choose(of, step.id)
  }

  function change(of: Prepared, changed: Step): void {
    const { off, ...on } = changed
    const step = waiting.delete(changed.id) && off === true ? on : changed
    keep(
      of,
      stepsOf(of).map((other) => (other.id === step.id ? step : other)),
    )
  }

  function move(of: Prepared, id: string, to: number): void {
    const step = stepsOf(of).find((other) => other.id === id)
    if (step === undefined) return
    const others = stepsOf(of).filter((other) => other.id !== id)
    others.splice(Math.max(0, Math.min(others.length, to)), 0, step)
    keep(of, others)
  }

  function remove(of: Prepared, id: string): void {
    keep(
      of,
      stepsOf(of).filter((step) => step.id !== id),
    )
    choose(of, null)
  }

  function copy(from: Side, step: Step): void {
    const to = from === 'source' ? 'target' : 'source'
    const copied = { ...step, id: freshStepId() }
    keep(to, [...stepsOf(to), copied])
    choose(to, copied.id)
  }

  return { stepsOf, add, change, move, remove, copy }
}
