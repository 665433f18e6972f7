<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { counted, joined } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** More time that was agreed with a student for everything, and why: the reason is for the team. */
const props = defineProps<{ edition: number; one: Schemas['OneStudentAnswer'] }>()

const arrange = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/arrange')
const open = ref(false)
const days = ref<number | null>(props.one.agreed?.dueDays ?? null)
const percent = ref<number | null>(props.one.agreed?.quizTime ?? null)
const reason = ref(props.one.agreed?.reason ?? '')
const words = computed(() => {
  const agreed = props.one.agreed
  if (!agreed) return 'Nothing is agreed for everything.'
  const parts = []
  if (agreed.dueDays !== null) parts.push(`everything is due ${counted(agreed.dueDays, 'day')} later`)
  if (agreed.quizTime !== null) parts.push(`quizzes last ${agreed.quizTime} % longer`)
  return `For them ${joined(parts)}.`
})
const asked = computed(() =>
  open.value && (days.value !== null || percent.value !== null)
    ? {
        student: props.one.student,
        dueDays: days.value,
        quizTime: percent.value,
        reason: reason.value,
        version: props.one.agreed?.version ?? 0,
      }
    : null,
)
const reach = useReach(asked, (request, signal) => arrange.preview(request, signal))
const done = () => {
  open.value = false
}
const send = () => asked.value && arrange.run(asked.value).then(done, () => undefined)
const end = () =>
  arrange
    .run({
      student: props.one.student,
      dueDays: null,
      quizTime: null,
      reason: '',
      version: props.one.agreed?.version ?? 0,
    })
    .then(done, () => undefined)
</script>

<template>
  <div>
    <p class="ruled-head head">
      <span>Agreed for everything</span>
      <button v-if="one.canChange && !open" type="button" class="word-button" @click="open = true">change</button>
    </p>
    <p class="said">
      {{ words }}
      <span v-if="one.agreed?.reason" class="small">{{ one.agreed.reason }} (the team alone reads this)</span>
    </p>
    <form v-if="open" novalidate @submit.prevent="send">
      <p class="line">
        <NumberField v-model="days" label="Days later" :max="365" optional /> <span>days more for whatever is due</span>
      </p>
      <p class="line">
        <NumberField v-model="percent" label="Percent longer" :max="400" optional />
        <span>% more time for quizzes</span>
      </p>
      <p class="line">
        <span>because</span> <WordField v-model="reason" label="The reason, for the team only" :maxlength="500" />
      </p>
      <p class="line">
        <v-btn type="submit" class="meant" :disabled="!asked || arrange.busy.value">Agree on it</v-btn>
        <v-btn v-if="one.agreed" :disabled="arrange.busy.value" @click="end">End what was agreed</v-btn>
        <v-btn @click="open = false">Leave it as it is</v-btn>
      </p>
      <p class="small" role="status">{{ reach }}</p>
    </form>
    <ProblemNote v-if="arrange.problem.value" :problem="arrange.problem.value" />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  padding-top: var(--space-8);
}
.head .word-button {
  margin-left: auto;
}
.said {
  padding: var(--space-4) 0;
}
.said .small {
  display: block;
}
form {
  display: grid;
  gap: var(--space-4);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
</style>
