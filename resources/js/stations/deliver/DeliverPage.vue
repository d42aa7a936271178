<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import CombinationsDialog from '@/parts/CombinationsDialog.vue'
import StationHead from '@/parts/StationHead.vue'
import EarlierDeliveries from '@/stations/deliver/EarlierDeliveries.vue'
import ProfileTable from '@/stations/deliver/ProfileTable.vue'
import ReadingLine from '@/stations/deliver/ReadingLine.vue'
import ScheduleDialog from '@/stations/deliver/ScheduleDialog.vue'
import WantedSources from '@/stations/deliver/WantedSources.vue'
import SidePane from '@/stations/deliver/SidePane.vue'
import { scheduleNote, useSchedule } from '@/stations/deliver/useSchedule'

const props = defineProps<{ course: Schemas['Course'] }>()
const isShowingEarlier = ref(false)
const isCombining = ref(false)
const isScheduling = ref(false)

const latest = computed(() => {
  const both = [props.course.source, props.course.target].filter((delivery) => delivery !== null)
  return both.sort((a, b) => b.deliveredAt.localeCompare(a.deliveredAt))[0]
})
const note = computed(() => {
  if (latest.value === undefined) return 'Drag a file to each side to begin.'
  const label = latest.value.side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel
  return `delivery ${latest.value.number} of the ${label.toLowerCase()}, ${moment(latest.value.deliveredAt)} by ${latest.value.deliveredBy}`
})
/** Once there is a tally, what is new is tallied again; before, it is matched first. */
const next = computed(() => {
  const { tally } = props.course
  if (tally === null) return { to: 'match', says: 'Match the rows' }
  return tally.isOnLatestDeliveries ? { to: 'review', says: 'Review what was found' } : { to: 'tally', says: 'Tally again' }
})
const { data: schedule } = useSchedule(() => props.course.id)
const SECOND = 1000
/** How far apart the moments are that the two extracts show. */
const gap = computed(() => {
  const [source, target] = [props.course.source?.asOf ?? null, props.course.target?.asOf ?? null]
  if (source === null || target === null) return ''
  const seconds = Math.round(Math.abs(Date.parse(target) - Date.parse(source)) / SECOND)
  if (seconds === 0) return 'both extracts show the same moment'
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60]
  const length = seconds < 60 ? `${seconds} s` : hours === 0 ? `${minutes} min` : `${hours} h ${minutes} min`
  return `extracts ${length} apart`
})
</script>

<template>
  <main class="station">
    <StationHead
      heading="What each side handed over"
      :words="['delivery', 'part']"
      :note="[note, gap, scheduleNote(schedule)].filter((said) => said !== '').join('; ')"
    >
      <el-button v-if="latest" @click="isCombining = true">Which rows repeat?</el-button>
      <el-button @click="isScheduling = true">{{ course.querySources.length > 0 ? 'Draw by schedule' : 'Tally by itself' }}</el-button>
      <el-button v-if="latest" @click="isShowingEarlier = true">See all deliveries</el-button>
      <RouterLink v-if="course.source && course.target" :to="`/datasets/${course.id}/${next.to}`" class="next">{{ next.says }}</RouterLink>
    </StationHead>
    <div class="above">
      <WantedSources :course="course" @drawn="isScheduling = true" />
      <div class="two">
        <SidePane side="source" :label="course.migration.sourceLabel" :delivery="course.source" :course="course" />
        <SidePane side="target" :label="course.migration.targetLabel" :delivery="course.target" :course="course" />
      </div>
    </div>
    <ProfileTable :course="course" class="columns" />
    <ReadingLine v-if="course.source || course.target" :source="course.source" :target="course.target" />
    <CombinationsDialog v-if="isCombining" :course="course" @close="isCombining = false" />
    <ScheduleDialog v-if="isScheduling" :course="course" @close="isScheduling = false" />
    <EarlierDeliveries v-model="isShowingEarlier" :course="course" />
  </main>
</template>

<style scoped>
.station {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  min-block-size: 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  background: var(--sheet);
  border-block-end: 1px solid var(--line);
}
.columns {
  overflow: auto;
}
.next {
  border: 1px solid var(--ink);
  background: var(--ink);
  color: #fff;
  border-radius: 4px;
  padding: 5px 12px;
  font-weight: 600;
  font-size: 13px;
  text-decoration: none;
}
@media (width < 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
