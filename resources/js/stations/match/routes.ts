import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: 'match', component: () => import('@/stations/match/MatchPage.vue') }]
