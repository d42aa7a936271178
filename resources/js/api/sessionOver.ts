import { ref } from 'vue'

/** Whether the session is over while somebody is at a page; what was asked waits until the same person is signed in again. */
export const isSessionOver = ref(false)
let known = false
let waiting: (() => void)[] = []

/** Only a page that somebody was signed in to has a session that can be over. */
export function rememberSomebody(isThere: boolean): void {
  known = isThere
}

const UNAUTHORISED = 401
/** The framework's own, for a token of a session that is gone. */
const PAGE_EXPIRED = 419
export const saysSessionIsOver = (response: Response): boolean => known && [UNAUTHORISED, PAGE_EXPIRED].includes(response.status)

export function signedInAgain(): Promise<void> {
  isSessionOver.value = true
  return new Promise((go) => waiting.push(go))
}

/** What waited goes on. */
export function goOn(): void {
  isSessionOver.value = false
  const all = waiting
  waiting = []
  for (const go of all) go()
}
