<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { count, shortCount } from '@/format/counts'
import { duration, moment } from '@/format/moments'
import { figure, figures, inWordsOf, type Said } from '@/format/said'
import SaidText from '@/parts/SaidText.vue'

const props = defineProps<{ course: Schemas['Course'] }>()

const rail = ref<HTMLElement | null>(null)
const route = useRoute()
/** Where there is no room for all, the station that one is at is in sight. */
watch(
  () => route.path,
  () =>
    void nextTick(() => {
      const [here, nav] = [rail.value?.querySelector<HTMLElement>('.on'), rail.value]
      if (here && nav && nav.scrollWidth > nav.clientWidth) nav.scrollLeft = here.offsetLeft - (nav.clientWidth - here.offsetWidth) / 2
    }),
  { immediate: true },
)

interface Station {
  number: number
  name: string
  path: string
  line: Said
  full?: string
  isOff: boolean
}

const deliverLine = computed(() => {
  const { source, target } = props.course
  if (source === null && target === null) return { line: ['nothing yet'], full: undefined }
  const delivered = (side: 'source' | 'target', format: (value: number) => string) => {
    const rows = props.course[side]?.delivered
    return rows === undefined ? 'none' : figure(`course/${side}/delivered`, format(rows))
  }
  const line = (format: (value: number) => string): Said => ['source ', delivered('source', format), ' · target ', delivered('target', format)]
  return { line: line(shortCount), full: inWordsOf(line(count)) }
})

const preparationLine = computed<Said>(() => {
  const { source, target } = props.course.steps
  return source + target === 0
    ? ['as delivered']
    : ['source ', ...figures('course/steps/source', source, 'step'), ' · target ', figure('course/steps/target', target)]
})
const tallyLine = computed<Said>(() => {
  const { run, tally } = props.course
  if (run !== null && !run.isOver) {
    return run.secondsLeft === null ? [run.state] : [`${run.state}, `, figure('course/run/secondsLeft', duration(run.secondsLeft)), ' left']
  }
  if (run !== null && run.state === 'failed') return ['the last run failed']
  return [tally === null ? 'not run yet' : `no. ${tally.number}, ${moment(tally.finishedAt)}`]
})

const reviewLine = computed<Said>(() => {
  const { tally } = props.course
  if (tally === null) return []
  if (!tally.isOnLatestDeliveries) return ['new delivery, tally again']
  if (tally.findings === 0) return ['nothing to explain']
  const findings = figure('course/tally/findings', shortCount(tally.findings))
  return tally.openFindings === 0
    ? ['all ', findings, ' ruled']
    : [figure('course/tally/openFindings', shortCount(tally.openFindings)), ' of ', findings, ' open']
})

const proveLine = computed<Said>(() => {
  const { tally } = props.course
  if (tally === null) return []
  if (tally.totals === 0) return ['no totals yet']
  const all = figures('course/tally/totals', tally.totals, 'total')
  return tally.totalsDiffering === 0
    ? [...all, ' agree']
    : [figure('course/tally/totalsDiffering', tally.totalsDiffering), ' of ', ...all, tally.totalsDiffering === 1 ? ' differs' : ' differ']
})

const signLine = computed<Said>(() => {
  const signed = props.course.tally?.signed
  if (signed === undefined) return []
  if (signed.state === 'none') return ['nobody has signed']
  return signed.given === 0 ? [signed.state] : [figure('course/tally/signed', signed.given), ' of ', figure('course/tally/signed', signed.asked), ' signed']
})

// Only stations that work: each keeps its number in the order of the work.
const stations = computed<Station[]>(() => {
  const { course } = props
  const both = course.source !== null && course.target !== null
  return [
    { number: 1, name: 'Deliver', path: 'deliver', line: deliverLine.value.line, full: deliverLine.value.full, isOff: false },
    { number: 2, name: 'Prepare', path: 'prepare', line: !both ? ['waits for both sides'] : preparationLine.value, isOff: !both },
    {
      number: 3,
      name: 'Match',
      path: 'match',
      line: !both
        ? ['waits for both sides']
        : course.keyColumns.length === 0
          ? ['no key yet']
          : [`${course.keyColumns.join(' + ')}, `, ...figures('course/pairs', course.pairs, 'column')],
      isOff: !both,
    },
    { number: 4, name: 'Tally', path: 'tally', line: tallyLine.value, isOff: !both },
    { number: 5, name: 'Review', path: 'review', line: reviewLine.value, isOff: course.tally === null },
    { number: 6, name: 'Prove', path: 'prove', line: proveLine.value, isOff: course.tally === null },
    { number: 7, name: 'Sign', path: 'sign', line: signLine.value, isOff: course.tally === null },
  ]
})
</script>

<template>
  <nav ref="rail" class="rail" aria-label="Stations">
    <RouterLink
      v-for="station in stations"
      :key="station.path"
      :to="`/datasets/${course.id}/${station.path}`"
      class="station"
      :class="{ off: station.isOff }"
      active-class="on"
    >
      <i data-ordinal>{{ station.number }}</i>
      <span>
        <b>{{ station.name }}</b>
        <span class="line" :title="station.full" :aria-label="station.full"><SaidText :said="station.line" /></span>
      </span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.rail {
  background: var(--rail);
  border-inline-end: 1px solid var(--line);
  padding: 10px 0;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
.station {
  display: grid;
  grid-template-columns: 26px 1fr;
  padding: 8px 10px 9px 12px;
  color: var(--ink-2);
  text-decoration: none;
}
i {
  font: 600 12px var(--cell);
  color: var(--ink-3);
  padding-block-start: 2px;
}
b {
  font-weight: 600;
  color: var(--ink);
  display: block;
}
.line {
  font-size: 12px;
  color: var(--ink-2);
  display: block;
  overflow-wrap: anywhere;
}
.on {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
.off b {
  color: var(--ink-3);
  font-weight: 500;
}
@media (width < 900px) {
  .rail {
    flex-direction: row;
    padding: 0;
    border-block-end: 1px solid var(--line);
  }
  .line {
    display: none;
  }
  .station {
    grid-template-columns: auto auto;
    gap: 6px;
  }
  .on {
    box-shadow: inset 0 -3px 0 var(--ink);
  }
}
</style>
