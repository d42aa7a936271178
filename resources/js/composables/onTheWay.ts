import type { Router } from 'vue-router'

let towards: string | null = null

/** Notes where somebody is on the way to, until they are there, or are called back. */
export function noteTheWay(router: Router): void {
  router.beforeEach(({ path }) => {
    towards = path
  })
  router.afterEach(({ path }) => {
    // One that was overtaken ends after the next one began.
    if (path === towards) towards = null
  })
}

/** Whether somebody is leaving a page: what it writes into its address by itself would call them back. */
export const isLeaving = (path: string): boolean => towards !== null && towards !== path
