import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: 'sign', component: () => import('@/stations/sign/SignPage.vue') }]
