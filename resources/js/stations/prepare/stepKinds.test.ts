import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { stepKinds } from '@/stations/prepare/stepKinds'
import { actions, held, tests, totals } from '@/stations/prepare/stepOptions'

const schema = JSON.parse(readFileSync('core/src/Plan/plan.schema.json', 'utf8')).$defs
const step = schema.step.properties

/** The published schema of plans is the measure: what the screen offers is what plans may say, no more and no less. */
describe('the steps that are offered', () => {
  it('are the kinds of the schema', () => {
    expect(stepKinds.map(({ kind }) => kind).sort()).toEqual([...step.kind.enum].sort())
  })

  it('are made with what their kind needs', () => {
    for (const rule of schema.step.allOf) {
      const kind = rule.if.properties.kind.const
      const made = stepKinds.find((known) => known.kind === kind)?.make(['basin', 'berth', 'fee'], []) ?? {}
      expect(Object.keys(made), kind).toEqual(expect.arrayContaining(rule.then.required ?? rule.then.anyOf[0].required))
    }
  })

  it('wait for a choice where nobody knows yet what is looked up', () => {
    expect(stepKinds.filter(({ group }) => group === 'References').map(({ waits }) => waits)).toEqual([true, true, true, true])
  })

  it('have a field for everything that they are made with, and no field that the schema does not know', () => {
    for (const kind of stepKinds) {
      const names = kind.fields.map(({ name }) => name)
      expect(Object.keys(step), kind.kind).toEqual(expect.arrayContaining(names))
      expect(names, kind.kind).toEqual(expect.arrayContaining(Object.keys(kind.make(['basin', 'berth'], []))))
    }
  })

  it('offer the actions, tests and totals of the schema', () => {
    expect(actions.map(({ value }) => value).sort()).toEqual([...step.actions.items.properties.action.enum].sort())
    expect(tests.map(({ value }) => value).sort()).toEqual([...schema.condition.properties.test.enum].sort())
    expect(totals.map(({ value }) => value).sort()).toEqual([...step.totals.items.properties.total.enum].sort())
    expect(held.map(({ value }) => value).sort()).toEqual([...step.holds.items.properties.total.enum].sort())
  })
})
