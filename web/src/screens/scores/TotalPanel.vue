<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import TotalLines from '../../parts/marks/TotalLines.vue'
import SidePanel from './SidePanel.vue'

/** What one student’s total is made of, beside the table. */
const props = defineProps<{ edition: number; student: number }>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.studentTotal(props.edition, props.student, viewpoint.query.value))
</script>

<template>
  <SidePanel
    label="What the total is made of"
    :title="answer.data.value?.name"
    :sum="answer.data.value?.total.soFar ?? 'nothing counts yet'"
    waiting="Adding up …"
    :problem="answer.problem.value"
    :again="answer.refetch"
    @close="emit('close')"
  >
    <TotalLines :total="answer.data.value!.total" />
  </SidePanel>
</template>
