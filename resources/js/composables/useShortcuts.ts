import { onScopeDispose } from 'vue'

const STORED = 'nine-tally:single-letter-keys'

/** Single letters can be switched off, for they get in the way of speech input (WCAG 2.1.4). */
export const singleLettersAreOn = (): boolean => localStorage.getItem(STORED) !== 'off'

export const switchSingleLetters = (on: boolean): void => localStorage.setItem(STORED, on ? 'on' : 'off')

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

/** Keys that act anywhere on the page, but not while somebody types. */
export function usePageKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  const listen = (event: KeyboardEvent): void => {
    const act = keys[event.key]
    if (act !== undefined && !isTyping(event.target) && !event.ctrlKey && !event.metaKey && !event.altKey && singleLettersAreOn()) {
      event.preventDefault()
      act(event)
    }
  }
  window.addEventListener('keydown', listen)
  onScopeDispose(() => window.removeEventListener('keydown', listen))
}
