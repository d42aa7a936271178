import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: '/migrations/:migration(\\d+)/content', component: () => import('@/stations/retention/ContentPage.vue') }]
