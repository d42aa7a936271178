<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, watch, watchEffect } from 'vue'
import { useCourse } from '@/composables/useCourse'
import { useNews } from '@/composables/useNews'
import { useDatasetId } from '@/composables/useDatasetId'
import CourseRail from '@/parts/CourseRail.vue'
import LoadState from '@/parts/LoadState.vue'
import MaskStrip from '@/parts/MaskStrip.vue'
import RoleStrip from '@/parts/RoleStrip.vue'
import TopBar from '@/parts/TopBar.vue'
import WorkbookTray from '@/parts/WorkbookTray.vue'

/** What every station of a dataset has around it: the bar, the course, and a foot of its own. */
const dataset = useDatasetId()
const { data: course, error, isPending, refetch } = useCourse(dataset)
const { said, dismiss } = useNews(() => dataset.value)
const name = computed(() => course.value?.name ?? null)

/** Milliseconds after which the station that was opened has what it needs. */
const WHILE_SOMEBODY_READS = 400
const queries = useQueryClient()
let waiting: ReturnType<typeof setTimeout> | undefined
watch(
  () => course.value?.tally?.id,
  (tally) => {
    clearTimeout(waiting)
    if (tally === undefined) return
    waiting = setTimeout(() => void import('@/stations/review/askAhead').then(({ askAhead }) => askAhead(queries, dataset.value, tally)), WHILE_SOMEBODY_READS)
  },
  { immediate: true },
)
onScopeDispose(() => clearTimeout(waiting))

watchEffect(() => {
  document.title = name.value === null ? 'Nine Tally' : `${name.value} · Nine Tally`
})
</script>

<template>
  <div class="frame">
    <TopBar :migration="course?.migration" :dataset="name" />
    <LoadState :is-loading="isPending" :error="error" what="The dataset" @retry="refetch()">
      <template v-if="course">
        <CourseRail :course="course" class="beside" />
        <WorkbookTray :dataset="dataset" class="beside foot" />
        <p v-if="said" class="news" role="status">{{ said }} <el-button link @click="dismiss">Close</el-button></p>
        <div class="station">
          <MaskStrip v-if="course.sensitive" :dataset="course.id" :sensitive="course.sensitive" />
          <RoleStrip :course="course" />
          <RouterView v-slot="{ Component }">
            <component :is="Component" :key="course.id" :course="course" />
          </RouterView>
        </div>
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.frame {
  block-size: 100%;
  display: grid;
  grid-template: 44px minmax(0, 1fr) / 176px minmax(0, 1fr);
}
.frame > :first-child {
  grid-column: 1 / -1;
}
.news {
  position: fixed;
  inset-block-end: 14px;
  inset-inline-start: 190px;
  z-index: 20;
  margin: 0;
  padding: 7px 14px;
  background: var(--mark);
  border: 1px solid var(--mark-edge);
  font-size: 13px;
}
.station {
  grid-area: 2 / 2;
  min-block-size: 0;
  display: flex;
  flex-direction: column;
}
.station > :last-child {
  flex: 1;
  min-block-size: 0;
}
.beside {
  grid-area: 2 / 1;
}
.foot {
  align-self: end;
}
@media (width < 900px) {
  .beside,
  .station {
    grid-area: auto;
  }
  .station {
    min-inline-size: 0;
  }
  .frame {
    block-size: auto;
    min-block-size: 100%;
    grid-template: 44px / minmax(0, 1fr);
    grid-auto-rows: auto;
    align-content: start;
  }
}
</style>
