<script setup lang="ts">
import { ref } from 'vue'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Takes the signatures back, with the reason that whoever signed before will read. */
const props = defineProps<{ act: 'returned' | 'withdrawn'; isBusy: boolean; error: Error | null }>()
const emit = defineEmits<{ end: [act: 'returned' | 'withdrawn', reason: string]; close: [] }>()
const reason = ref('')
</script>

<template>
  <el-dialog
    :model-value="true"
    :title="props.act === 'returned' ? 'Return the sign-off' : 'Withdraw the sign-off'"
    width="min(520px, 95vw)"
    @close="emit('close')"
  >
    <form @submit.prevent="emit('end', props.act, reason)">
      <p class="quiet">The signatures so far are taken back and stay to be read; signing begins anew, and findings can be ruled on again.</p>
      <label for="end-reason">Why</label>
      <el-input id="end-reason" v-model="reason" type="textarea" :rows="3" maxlength="2000" autofocus />
      <ErrorNote :error="error" />
      <div class="buttons">
        <el-button @click="emit('close')">Keep it as it is</el-button>
        <el-button type="primary" native-type="submit" :loading="isBusy" :disabled="reason.trim() === ''">{{
          props.act === 'returned' ? 'Return with this reason' : 'Withdraw with this reason'
        }}</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
  font-size: 13px;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
