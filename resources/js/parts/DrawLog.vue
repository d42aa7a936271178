<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'

/** What was drawn and what became of it, the newest first; each with its log in words. */
defineProps<{ draws: readonly Schemas['Draw'][]; namesDataset?: boolean }>()
const STATES: Record<Schemas['Draw']['state'], string> = {
  asking: 'being asked',
  drawing: 'being drawn',
  reading: 'being read',
  waiting: 'waiting for others',
  tallying: 'being tallied',
  done: 'done',
  failed: 'failed',
  refused: 'not drawn',
}
const isBad = ({ state }: Schemas['Draw']): boolean => state === 'failed' || state === 'refused'
const last = ({ log }: Schemas['Draw']): string => log.at(-1)?.said ?? ''
</script>

<template>
  <ul class="draws" aria-label="What was drawn">
    <li v-for="draw in draws" :key="draw.id">
      <details>
        <summary>
          <span class="when">{{ moment(draw.beganAt) }}</span>
          <span v-if="namesDataset">{{ draw.dataset.name }}</span>
          <b :class="{ bad: isBad(draw) }">{{ STATES[draw.state] }}</b>
          <span>{{ last(draw) }}</span>
        </summary>
        <ol>
          <li v-for="(line, place) in draw.log" :key="place">
            <span class="when">{{ moment(line.at) }}</span> {{ line.said }}
          </li>
        </ol>
        <p class="quiet">
          {{ draw.dueAt === null ? `${draw.by} asked for it` : `by the schedule, for ${moment(draw.dueAt)}, in the name of ${draw.by}`
          }}<template v-if="namesDataset"
            >; <RouterLink :to="`/datasets/${draw.dataset.id}/tally`">open the tallies of {{ draw.dataset.name }}</RouterLink></template
          >.
        </p>
      </details>
    </li>
  </ul>
</template>

<style scoped>
.draws {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 13px;
}
.draws > li {
  border-block-end: 1px solid var(--line-2);
  padding-block: 4px;
}
summary {
  cursor: pointer;
  min-block-size: 24px;
}
summary > * {
  margin-inline-end: 10px;
}
.when {
  color: var(--ink-2);
  font-variant-numeric: tabular-nums;
}
.bad {
  color: var(--fail);
}
ol {
  margin: 4px 0 0;
  padding-inline-start: 34px;
}
p {
  margin: 2px 0 0 16px;
  font-size: 12.5px;
}
</style>
