<script setup lang="ts">
import { computed } from 'vue'
import { DAYS, OFTEN, type Often } from '@/format/scheduleTimes'
import type { ScheduleChoice } from '@/parts/scheduleChoice'

/** Fields for when something is drawn and tallied by itself. */
defineProps<{ draws: boolean }>()
const choice = defineModel<ScheduleChoice>({ required: true })
const zones = Intl.supportedValuesOf('timeZone')
const often = computed(() => choice.value.times.often)
const hasTimes = computed(() => often.value !== 'never')
</script>

<template>
  <template v-if="draws">
    <label class="field"
      >How often
      <el-select v-model="choice.times.often" aria-label="How often">
        <el-option v-for="(name, one) in OFTEN" :key="one" :value="one as Often" :label="name" />
      </el-select>
    </label>
    <label v-if="often === 'week'" class="field"
      >On
      <el-select v-model="choice.times.day" aria-label="Day of the week">
        <el-option v-for="(name, day) in DAYS" :key="day" :value="day" :label="name" />
      </el-select>
    </label>
    <label v-if="often === 'month'" class="field"
      >On day <el-input-number v-model="choice.times.date" :min="1" :max="31" aria-label="Day of the month"
    /></label>
    <label v-if="often === 'other'" class="field wide"
      >Minute, hour, day of the month, month, day of the week (cron)
      <el-input v-model="choice.times.expression" aria-label="Times as cron says them" placeholder="0 6 * * 1" />
    </label>
    <label v-else-if="hasTimes" class="field">At <el-input v-model="choice.times.at" type="time" aria-label="Time of the day" /></label>
    <label v-if="hasTimes" class="field"
      >In the zone
      <el-select v-model="choice.zone" filterable aria-label="Zone">
        <el-option v-for="name in zones" :key="name" :value="name" :label="name" />
      </el-select>
    </label>
    <label v-if="hasTimes" class="field"
      >Most seconds apart
      <el-input-number v-model="choice.mostApart" :min="0" :controls="false" placeholder="any number" aria-label="Most seconds apart" />
    </label>
  </template>
  <el-checkbox v-model="choice.onArrival">tally when both sides have arrived, whoever brings them</el-checkbox>
</template>

<style scoped>
.field {
  display: grid;
  font-size: 12.5px;
  color: var(--ink-2);
  inline-size: 170px;
}
.wide {
  inline-size: 360px;
}
.field :deep(.el-input-number) {
  inline-size: 100%;
}
</style>
