import type { RouteRecordRaw } from 'vue-router'

export const ownPages: RouteRecordRaw[] = [{ path: '/check-a-pack', component: () => import('@/stations/sign/CheckPackPage.vue') }]

export const routes: RouteRecordRaw[] = [{ path: 'sign', component: () => import('@/stations/sign/SignPage.vue') }]
