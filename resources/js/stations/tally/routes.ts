import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: 'tally', component: () => import('@/stations/tally/TallyPage.vue') }]
