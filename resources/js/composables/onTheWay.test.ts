import { expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { isLeaving, noteTheWay } from '@/composables/onTheWay'

it('knows that somebody leaves from the press until they are there, and not when they are called back', async () => {
  let arrive: (page: { template: string }) => void = () => undefined
  const slow = () => new Promise<{ template: string }>((resolve) => (arrive = resolve))
  const page = { template: '<p />' }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: page },
      { path: '/review', component: page },
      { path: '/prove', component: slow },
    ],
  })
  noteTheWay(router)
  await router.push('/review')
  expect(isLeaving('/review')).toBe(false)

  const going = router.push('/prove')
  await new Promise((resolve) => setTimeout(resolve))
  expect(isLeaving('/review')).toBe(true)
  arrive(page)
  await going
  expect(router.currentRoute.value.path).toBe('/prove')
  expect(isLeaving('/prove')).toBe(false)

  const back = router.push('/review')
  await router.push('/')
  await back
  expect(isLeaving('/')).toBe(false)
})
