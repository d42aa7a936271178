import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { singleLettersAreOn, switchSingleLetters, usePageKeys } from '@/composables/useShortcuts'

const press = (key: string, target: EventTarget = document.body, extra: KeyboardEventInit = {}): boolean =>
  target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...extra }))

describe('keys that act anywhere on a page', () => {
  const act = vi.fn()
  const scope = () => {
    const around = effectScope()
    around.run(() => usePageKeys({ '/': act }))
    return around
  }
  beforeEach(() => {
    act.mockReset()
    localStorage.clear()
    document.body.innerHTML = '<input><textarea></textarea><button>Rule</button>'
  })

  it('act once, and keep the browser from acting too', () => {
    const around = scope()
    expect(press('/')).toBe(false)
    expect(press('x')).toBe(true)
    expect(act).toHaveBeenCalledTimes(1)
    around.stop()
  })

  it.each(['input', 'textarea'])('leave an %s alone, where they are letters', (field) => {
    const around = scope()
    press('/', document.querySelector(field) ?? document.body)
    expect(act).not.toHaveBeenCalled()
    press('/', document.querySelector('button') ?? document.body)
    expect(act).toHaveBeenCalledTimes(1)
    around.stop()
  })

  it('leave the commands of the browser alone', () => {
    const around = scope()
    press('/', document.body, { ctrlKey: true })
    press('/', document.body, { metaKey: true })
    expect(act).not.toHaveBeenCalled()
    around.stop()
  })

  it('can be switched off, and stay off after a reload', () => {
    const around = scope()
    expect(singleLettersAreOn()).toBe(true)
    switchSingleLetters(false)
    press('/')
    expect(act).not.toHaveBeenCalled()
    switchSingleLetters(true)
    press('/')
    expect(act).toHaveBeenCalledTimes(1)
    around.stop()
  })

  it('end with what asked for them', () => {
    scope().stop()
    press('/')
    expect(act).not.toHaveBeenCalled()
  })
})
