<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { reactive } from 'vue'
import { answer, api } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import AccessFrame from '@/stations/access/AccessFrame.vue'

const queries = useQueryClient()
const entered = reactive({ code: '', name: '', email: '', password: '' })
const { mutate, isPending, error } = useMutation({
  mutationFn: () => answer(api.POST('/first-person', { body: { ...entered } })),
  onSuccess: () => queries.invalidateQueries({ queryKey: ['session'] }),
})
</script>

<template>
  <AccessFrame heading="Nobody is here yet" note="Make the first administrator. The one-time code stands on the terminal where Nine Tally was started.">
    <el-form label-position="top" @submit.prevent="mutate()">
      <el-form-item label="One-time code"><el-input id="code" v-model="entered.code" autocomplete="off" autofocus /></el-form-item>
      <el-form-item label="Your name"><el-input id="name" v-model="entered.name" autocomplete="name" /></el-form-item>
      <el-form-item label="E-mail address"><el-input id="email" v-model="entered.email" autocomplete="username" /></el-form-item>
      <el-form-item label="Password, 15 characters or more; several words are easy to keep"
        ><el-input id="password" v-model="entered.password" type="password" autocomplete="new-password"
      /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="isPending">Make the first administrator</el-button>
    </el-form>
    <ErrorNote :error="error" />
  </AccessFrame>
</template>
