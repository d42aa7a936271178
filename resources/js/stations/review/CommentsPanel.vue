<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'

export interface CommentSubject {
  kind: Schemas['SubjectKind']
  target: string
  words: string
}

/** What people say about a finding or about its pattern; it stays with it from tally to tally. */
const props = defineProps<{
  mayWrite: boolean
  tally: Schemas['Tally']
  subjects: readonly CommentSubject[]
  people: readonly Schemas['PersonOfMigration'][]
}>()
const chosen = ref(0)
const subject = computed(() => props.subjects[Math.min(chosen.value, props.subjects.length - 1)])
watch(
  () => props.subjects.length,
  (length) => {
    if (chosen.value >= length) chosen.value = 0
  },
)

const queries = useQueryClient()
const key = computed(() => ['comments', props.tally.id, subject.value?.kind, subject.value?.target])
const { data, error } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) =>
    answer(
      api.GET('/tallies/{tally}/comments', {
        params: { path: { tally: props.tally.id }, query: { kind: subject.value?.kind ?? 'row', target: subject.value?.target ?? '' } },
        signal,
      }),
    ),
  enabled: () => subject.value !== undefined,
})
const text = ref('')
const mentions = ref<number[]>([])
const isWriting = ref(false)
const add = useMutation({
  mutationFn: (about: CommentSubject) =>
    answer(
      api.POST('/tallies/{tally}/comments', {
        params: { path: { tally: props.tally.id } },
        body: { kind: about.kind, target: about.target, text: text.value, mentions: mentions.value },
      }),
    ),
  onSuccess: () => {
    text.value = ''
    mentions.value = []
    isWriting.value = false
    return queries.invalidateQueries({ queryKey: key.value })
  },
})
</script>

<template>
  <section v-if="subject" class="comments" aria-label="Comments">
    <header>
      <span v-if="subjects.length === 1">Comments on {{ subject.words }}{{ data?.items.length ? ` (${data.items.length})` : '' }}</span>
      <label v-for="(one, place) in subjects.length === 1 ? [] : subjects" :key="one.kind"
        ><input v-model="chosen" type="radio" name="comments-about" :value="place" /> {{ one.words
        }}{{ place === chosen && data?.items.length ? ` (${data.items.length})` : '' }}</label
      >
      <el-button v-if="mayWrite" link size="small" :aria-expanded="isWriting" @click="isWriting = !isWriting">Comment</el-button>
    </header>
    <ul>
      <li v-for="comment in data?.items" :key="comment.id">
        <b>{{ comment.person }}</b> <span class="quiet">{{ moment(comment.at) }}{{ comment.tally === tally.number ? '' : `, on tally ${comment.tally}` }}</span>
        <p>{{ comment.text }}</p>
        <span v-if="comment.mentioned.length > 0" class="quiet">to {{ comment.mentioned.join(', ') }}</span>
      </li>
    </ul>
    <form v-if="isWriting" @submit.prevent="add.mutate(subject)">
      <el-input v-model="text" type="textarea" :rows="2" :aria-label="`Comment on ${subject.words}`" maxlength="4000" />
      <el-select v-model="mentions" multiple :persistent="false" size="small" placeholder="For whom" aria-label="For whom">
        <el-option v-for="person in people" :key="person.id" :value="person.id" :label="person.name" />
      </el-select>
      <el-button size="small" native-type="submit" :disabled="text.trim() === ''" :loading="add.isPending.value">Add the comment</el-button>
    </form>
    <ErrorNote :error="error ?? add.error.value" />
  </section>
</template>

<style scoped>
.comments {
  border-block-start: 1px solid var(--line);
  padding: 6px 14px;
  font-size: 12.5px;
  background: var(--sheet);
  max-block-size: 40%;
  overflow: auto;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
}
header .el-button {
  margin-inline-start: auto;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 4px 0;
}
li p {
  margin: 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
form {
  display: grid;
  gap: 6px;
  padding-block: 4px;
}
</style>
