<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { commonDateForms, DAY_NUMBERS, dateFormName, dateFormOf, hasShortYears, type DateParts } from '@/format/forms'
import type { ReadingProps } from '@/parts/readingProps'

/** In which forms dates are written, each shown by today's date and its parts; another one is put together from its parts. */
const props = defineProps<Omit<ReadingProps, 'kind'>>()
const emit = defineEmits<{ declare: [reading: Schemas['Reading']] }>()

const FIRST_YEAR = 1900
const LAST_YEAR = 2000
const isOpen = ref(false)
const parts = ref<DateParts>({ order: 'day-month-year', between: '/', month: 'number', year: 4, digits: 'two', time: '' })
const built = computed(() => dateFormOf(parts.value))
const declared = computed(() => props.reading.dateForms ?? [])
const offered = computed(() => [...new Set<string>([...declared.value, ...(props.found ?? []), ...commonDateForms, ...DAY_NUMBERS.map(({ form }) => form)])])
const from = computed(() => props.reading.twoDigitYearsFrom ?? props.inherited?.twoDigitYearsFrom)
const centuries = computed(() => {
  const years = Array.from({ length: (LAST_YEAR - FIRST_YEAR) / 10 + 1 }, (_, place) => FIRST_YEAR + 10 * place)
  return from.value === undefined || years.includes(from.value) ? years : [...years, from.value].sort((one, other) => one - other)
})
const inherits = computed(() =>
  (props.inherited?.dateForms ?? []).length === 0
    ? `${dateFormName('yyyy-MM-dd')} only`
    : `as the whole side: ${(props.inherited?.dateForms ?? []).map((form) => dateFormName(form)).join(', ')}`,
)

/** Years of two digits need a century: the usual one is put there and shown. */
function declare(forms: readonly string[]): void {
  const needsCentury = hasShortYears(forms) && from.value === undefined
  emit('declare', { dateForms: [...forms], ...(needsCentury && { twoDigitYearsFrom: 1950 }) })
}
function add(): void {
  if (!declared.value.includes(built.value)) declare([...declared.value, built.value])
  isOpen.value = false
}
</script>

<template>
  <div class="field">
    <label>
      <span>Dates are written as</span>
      <el-select
        :model-value="declared"
        multiple
        filterable
        :reserve-keyword="false"
        :disabled="!mayWork"
        :aria-label="`${label}: dates are written as`"
        :placeholder="inherits"
        @update:model-value="declare($event)"
      >
        <el-option v-for="form in offered" :key="form" :value="form" :label="dateFormName(form)" />
      </el-select>
    </label>
    <label v-if="hasShortYears(declared)">
      <span>Years of two digits are</span>
      <el-select
        :model-value="from"
        :disabled="!mayWork"
        :aria-label="`${label}: years of two digits are`"
        placeholder="of which hundred years?"
        @update:model-value="emit('declare', { twoDigitYearsFrom: $event })"
      >
        <el-option v-for="year in centuries" :key="year" :value="year" :label="`${year} to ${year + 99}`" />
      </el-select>
    </label>
    <el-button v-if="mayWork && !isOpen" link size="small" @click="isOpen = true">Another form</el-button>
    <div v-if="isOpen" class="parts" role="group" :aria-label="`${label}: another form of dates`">
      <el-select v-model="parts.order" size="small" aria-label="Order">
        <el-option value="day-month-year" label="day, month, year" />
        <el-option value="month-day-year" label="month, day, year" />
        <el-option value="year-month-day" label="year, month, day" />
      </el-select>
      <el-select v-model="parts.between" size="small" aria-label="Between them" :empty-values="[null, undefined]">
        <el-option value="/" label="slashes between" />
        <el-option value="." label="points between" />
        <el-option value="-" label="hyphens between" />
        <el-option value=" " label="spaces between" />
        <el-option value="" label="nothing between" />
      </el-select>
      <el-select v-model="parts.month" size="small" aria-label="Month">
        <el-option value="number" label="month as a number" />
        <el-option value="name" label="month by its name" />
      </el-select>
      <el-select v-model="parts.year" size="small" aria-label="Year">
        <el-option :value="4" label="year of four digits" />
        <el-option :value="2" label="year of two digits" />
      </el-select>
      <el-select v-model="parts.digits" size="small" aria-label="Digits of day and month">
        <el-option value="two" label="always two digits: 03" />
        <el-option value="as needed" label="one digit or two: 3" />
      </el-select>
      <el-select v-model="parts.time" size="small" aria-label="Time" :empty-values="[null, undefined]">
        <el-option value="" label="no time" />
        <el-option value="HH:mm" label="hours and minutes" />
        <el-option value="HH:mm:ss" label="with seconds" />
        <el-option value="h:mm a" label="twelve hours, am and pm" />
      </el-select>
      <el-button size="small" @click="add">Add {{ dateFormName(built) }}</el-button>
      <el-button link size="small" @click="isOpen = false">Close</el-button>
    </div>
  </div>
</template>

<style scoped>
.field,
label {
  display: grid;
  gap: 2px;
  justify-items: start;
  clear: both;
}
label {
  font-size: 12.5px;
  inline-size: 100%;
}
.parts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
  inline-size: 100%;
}
.parts .el-button {
  margin: 0;
  grid-column: 1 / -1;
  justify-self: start;
}
</style>
