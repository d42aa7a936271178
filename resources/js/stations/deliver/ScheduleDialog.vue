<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import { timesOf } from '@/format/scheduleTimes'
import DrawLog from '@/parts/DrawLog.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import { asked, isIdle, newChoice } from '@/parts/scheduleChoice'
import ScheduleFields from '@/parts/ScheduleFields.vue'
import { isGoing, useSchedule, whenSaid } from '@/stations/deliver/useSchedule'

/** When both sides are drawn from their databases and tallied by themselves, and what became of it. */
const props = defineProps<{ course: Schemas['Course'] }>()
const emit = defineEmits<{ close: [] }>()
const key = ['dataset', props.course.id, 'schedule']
const path = { params: { path: { dataset: props.course.id } } }
const { data, error, isPending, refetch } = useSchedule(() => props.course.id)
const queries = useQueryClient()
watch(
  () => isGoing(data.value),
  // What was drawn is delivered, and tallied: the station shows it.
  () => void queries.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
)
const choice = ref(newChoice())
const kept = computed(() => data.value?.schedule ?? null)
watch(
  data,
  (found) => {
    if (found === undefined) return
    const { schedule } = found
    if (schedule !== null) choice.value = { ...schedule, times: timesOf(schedule.expression) }
    else if (found.draws.length === 0) choice.value.times = timesOf(null)
  },
  // The station may know it already.
  { immediate: true },
)
const keptWhen = computed(() => {
  const said = whenSaid(kept.value)
  return said === '' ? 'Switched off' : said.charAt(0).toUpperCase() + said.slice(1)
})
const keep = useMutation({
  mutationFn: (isOn: boolean) => answer(api.PUT('/datasets/{dataset}/schedule', { ...path, body: asked(choice.value, isOn) })),
  onSuccess: (found) => queries.setQueryData(key, found),
})
const draw = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/draws', { ...path, body: { inPlace: choice.value.inPlace && data.value?.notInPlace === null } })),
  onSuccess: (found) => queries.setQueryData(key, found),
})
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel).toLowerCase()
/** What is drawn, and what stays as it was delivered. */
const said = computed(() =>
  (['source', 'target'] as const)
    .map((side) => {
      const found = data.value?.draws.find((one) => one.side === side)
      return found === undefined ? `the ${label(side)} stays as it was delivered` : `the ${label(side)} from ${found.sources.join(', ')}`
    })
    .join('; '),
)
</script>

<template>
  <el-dialog :model-value="true" title="Draw and tally by itself" width="min(720px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The schedule" @retry="refetch()">
      <div v-if="data" class="all">
        <p v-if="data.draws.length === 0">
          Neither side was drawn from a source yet. Take the rows of a query or a table, or files from a folder, once; from then on they can be drawn again by
          themselves. What people bring can be tallied by itself as soon as both sides are there.
        </p>
        <p v-else>Drawn is what was asked last: {{ said }}. Then both are tallied.</p>
        <p v-if="kept" role="status">
          <b>{{ keptWhen }}</b><template v-if="kept.expression !== null">, {{ kept.zone }}</template
          >, in the name of {{ kept.by }}<template v-if="kept.mostApart !== null">; both sides at most {{ counted(kept.mostApart, 'second') }} apart</template>.
          <span v-if="kept.next.length > 0" class="quiet">Next: {{ kept.next.map((at) => moment(at)).join(', ') }}.</span>
        </p>
        <form v-if="course.mayWork" class="times" @submit.prevent="keep.mutate(true)">
          <ScheduleFields v-model="choice" :draws="data.draws.length > 0" />
          <div v-if="data.draws.length === 2" class="place">
            <el-checkbox v-model="choice.inPlace" :disabled="data.notInPlace !== null">ask both databases first, and draw what differs alone</el-checkbox>
            <span class="quiet">{{
              data.notInPlace === null
                ? 'Rows that are equal on both sides, byte for byte, are counted where they stand. Others are drawn in groups.'
                : `Not here: ${data.notInPlace}.`
            }}</span>
          </div>
          <span class="buttons">
            <el-button type="primary" native-type="submit" :disabled="isIdle(choice)" :loading="keep.isPending.value">{{
              kept?.isOn ? 'Keep this' : 'Do so from now on'
            }}</el-button>
            <el-button v-if="kept?.isOn" @click="keep.mutate(false)">Switch it off</el-button>
            <el-button v-if="data.draws.length > 0" :loading="draw.isPending.value" :disabled="isGoing(data)" @click="draw.mutate()">Draw both now</el-button>
          </span>
        </form>
        <ErrorNote :error="keep.error.value ?? draw.error.value" />
        <template v-if="data.past.length > 0">
          <h3>What was drawn</h3>
          <DrawLog :draws="data.past" />
        </template>
      </div>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.all {
  display: grid;
  gap: 10px;
}
p,
h3 {
  margin: 0;
}
h3 {
  font-size: 14px;
}
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.place {
  inline-size: 100%;
  display: grid;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
