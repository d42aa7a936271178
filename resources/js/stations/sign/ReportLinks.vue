<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Links by which somebody without an account reads the report as it stands: until a day, or until taken back. */
const props = defineProps<{ tally: number; maySign: boolean }>()
const FORTNIGHT = 14 * 86_400_000
const queries = useQueryClient()
const key = computed(() => ['tally', props.tally, 'report-links'])
const { data } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/report-links', { params: { path: { tally: props.tally } }, signal })),
})
const lastDay = ref(new Date(Date.now() + FORTNIGHT).toISOString().slice(0, 10))
const address = ref('')
const make = useMutation({
  mutationFn: () => answer(api.POST('/tallies/{tally}/report-links', { params: { path: { tally: props.tally } }, body: { lastDay: lastDay.value } })),
  onSuccess: (link) => {
    address.value = link.address ?? ''
    return queries.invalidateQueries({ queryKey: key.value })
  },
})
const revoke = useMutation({
  mutationFn: (id: number) => answer(api.DELETE('/report-links/{reportLink}', { params: { path: { reportLink: id } } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: key.value }),
})
</script>

<template>
  <section v-if="data && (data.mayLink || data.items.length > 0)" aria-label="Links to the report">
    <h2>Links to the report</h2>
    <ol>
      <li v-for="link in data.items" :key="link.id">
        <span
          >{{ link.isRevoked ? 'taken back' : link.isOpen ? 'until' : 'over since' }} <span v-if="!link.isRevoked">{{ moment(link.endsAt) }}</span>
          <span class="quiet"
            >, opened <span data-ordinal>{{ counted(link.openings, 'time') }}</span>, made by {{ link.by }}</span
          ></span
        >
        <button v-if="link.isOpen && maySign" type="button" class="plain as-link" @click="revoke.mutate(link.id)">Take it back</button>
      </li>
    </ol>
    <p v-if="address" role="status">
      Told this once: <a :href="address" class="address cell">{{ address }}</a>
    </p>
    <form v-if="data.mayLink && maySign" @submit.prevent="make.mutate()">
      <label for="link-until">until</label>
      <input id="link-until" v-model="lastDay" type="date" />
      <el-button size="small" native-type="submit" :loading="make.isPending.value">Make a link</el-button>
    </form>
    <ErrorNote :error="make.error.value ?? revoke.error.value" />
  </section>
</template>

<style scoped>
h2 {
  margin: 0;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 6px;
  font-size: 13px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
p {
  margin: 8px 0 0;
  font-size: 13px;
}
.address {
  white-space: normal;
  overflow-wrap: anywhere;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-block-start: 8px;
  font-size: 13px;
}
input {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 3px 8px;
  font: inherit;
}
</style>
