<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'

/** The signatures that are asked for, those that are given, and what was taken back before. */
const props = defineProps<{ signOff: Schemas['SignOff']; tally: number }>()
const ROLES = { prepared: 'an analyst', checked: 'a test manager', accepted: 'a data owner' } as const
const asked = computed(() => (['prepared', 'checked', 'accepted'] as const).filter((act) => act !== 'checked' || props.signOff.duties.needsCheck))
const given = (act: string): Schemas['GivenSignature'] | undefined => props.signOff.signatures.find((one) => one.act === act && one.stands === true)
const ended = computed(() => props.signOff.signatures.filter(({ stands }) => stands !== true))
const state = (one: Schemas['GivenSignature']): string => `/api/v1/tallies/${props.tally}/signatures/${one.id}/state`
</script>

<template>
  <ol>
    <li v-for="act in asked" :key="act">
      <template v-if="given(act)">
        <span>
          {{ given(act)?.person }}
          <span class="quiet">{{ given(act)?.role }}, {{ act }}</span>
        </span>
        <span class="given">
          ✓ {{ moment(given(act)?.at ?? '') }}
          <a :href="state(given(act)!)" download class="quiet">what was signed</a>
        </span>
      </template>
      <template v-else>
        <span
          >{{ act }} <span class="quiet">by {{ ROLES[act] }}</span></span
        >
        <span :class="{ next: signOff.next === act }">{{ signOff.next === act ? 'is next' : 'waiting' }}</span>
      </template>
    </li>
  </ol>
  <details v-if="ended.length > 0">
    <summary class="quiet">Taken back before</summary>
    <ol>
      <li v-for="one in ended" :key="one.id">
        <span
          >{{ one.person }} <span class="quiet">{{ one.act }}</span><span v-if="one.reason" class="cell reason">{{ one.reason }}</span></span
        >
        <span>{{ moment(one.at) }}</span>
      </li>
    </ol>
  </details>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  font-size: 13.5px;
}
li > span:first-child > .quiet,
.reason {
  display: block;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.given {
  color: var(--pass);
  text-align: end;
}
.given a {
  display: block;
  font-size: 12.5px;
}
.next {
  font-weight: 650;
}
summary {
  font-size: 12.5px;
  margin-block-start: 8px;
  cursor: pointer;
}
</style>
