<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../../foundation/api/questions'
import { useAnswer } from '../../../foundation/useAnswer'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'

/** Whether each student hands in their own, or those in one group hand in one piece together. */
const props = defineProps<{ edition: number }>()
const chosen = defineModel<string[] | null>({ required: true })

const groups = useAnswer(() => questions.groups(props.edition))
const names = computed(() => (groups.data.value?.groups ?? []).map((group) => group.name))
const choices = [
  { value: false, title: 'each student hands in their own' },
  { value: true, title: 'a group hands in one piece' },
]
</script>

<template>
  <OneOfField
    :model-value="chosen !== null"
    label="Who hands in"
    :choices="choices"
    @update:model-value="chosen = $event ? [] : null"
  />
  <p v-if="chosen !== null" class="line">
    <TickField v-for="one in names" :key="one" v-model="chosen" :value="one" :label="one" />
    <span v-if="names.length === 0" class="second"
      >There are no groups yet: make them in Sections, by hand or by lot.</span
    >
    <span v-else class="small second"
      >Students of one section in one of these groups hand in together; everybody else hands in their own.</span
    >
  </p>
</template>
