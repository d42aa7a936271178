import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: 'prove', component: () => import('@/stations/prove/ProvePage.vue') },
  { path: 'prove/references', component: () => import('@/stations/prove/ReferencesPage.vue') },
  { path: 'prove/eye-check', component: () => import('@/stations/prove/EyeCheckPage.vue') },
  { path: 'prove/population', component: () => import('@/stations/prove/PopulationPage.vue') },
]
