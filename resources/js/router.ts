import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'
import { followPage } from '@/composables/mainPart'
import { noteTheWay } from '@/composables/onTheWay'
import { routes as access } from '@/stations/access/routes'
import { routes as board } from '@/stations/board/routes'
import { routes as deliver } from '@/stations/deliver/routes'
import { routes as match } from '@/stations/match/routes'
import { routes as review } from '@/stations/review/routes'
import { routes as prepare } from '@/stations/prepare/routes'
import { routes as prove } from '@/stations/prove/routes'
import { routes as retention } from '@/stations/retention/routes'
import { ownPages as signPages, routes as sign } from '@/stations/sign/routes'
import { routes as tally } from '@/stations/tally/routes'
import DatasetFrame from '@/DatasetFrame.vue'
import NotFound from '@/NotFound.vue'

const routes: RouteRecordRaw[] = [
  ...access,
  ...board,
  ...signPages,
  ...retention,
  { path: '/datasets/:dataset(\\d+)', component: DatasetFrame, children: [...deliver, ...prepare, ...match, ...tally, ...review, ...prove, ...sign] },
  { path: '/:rest(.*)*', component: NotFound },
]

export const router = createRouter({ history: createWebHistory(), routes })
noteTheWay(router)

// A filter in the address is the same page.
router.afterEach((to, from) => {
  if (from.matched.length === 0 || to.path === from.path) return
  setTimeout(() => followPage(() => router.currentRoute.value.path === to.path))
})
