import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [{ path: 'shape', component: () => import('@/stations/shape/ShapePage.vue') }]
