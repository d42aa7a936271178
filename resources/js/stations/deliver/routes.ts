import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: '', redirect: (to) => `/datasets/${String(to.params.dataset)}/deliver` },
  { path: 'deliver', component: () => import('@/stations/deliver/DeliverPage.vue') },
]
