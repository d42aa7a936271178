import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: 'review', component: () => import('@/stations/review/ReviewPage.vue') },
  { path: 'defects', component: () => import('@/stations/review/DefectsPage.vue') },
]
