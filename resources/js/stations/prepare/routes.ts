import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: 'prepare', component: () => import('@/stations/prepare/PreparePage.vue') }]
