<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { useLook } from '../../foundation/commands/useLook'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import TickField from '../../parts/fields/TickField.vue'
import WordField from '../../parts/fields/WordField.vue'
import { type Role, roleWords, roles } from './roles'

/** Somebody comes to the team, or is to be something else on it. */
const props = defineProps<{
  edition: number
  sections: readonly Schemas['TeamSection'][]
  /** Null: somebody new. */
  member: Schemas['TeamMember'] | null
}>()
const emit = defineEmits<{ done: [string]; close: [] }>()

const address = ref('')
const role = ref<Role>(props.member?.role ?? 'co')
const teaches = ref<number[]>([...(props.member?.teaches ?? [])])
const asked = computed<Schemas['SetTeamMemberRequest'] | null>(() =>
  props.member || address.value.trim().includes('@')
    ? {
        address: props.member ? null : address.value.trim(),
        person: props.member?.person ?? null,
        role: role.value,
        teaches: role.value === 'reader' ? [] : teaches.value,
      }
    : null,
)
const path = computed(() => ({ edition: props.edition }))
const look = useLook(asked, (body, signal) =>
  ask(
    api.POST('/api/editions/{edition}/set-team-member', {
      params: { path: path.value, query: { preview: true } },
      body,
      signal,
    }),
  ),
)
const set = useSend(
  (body: Schemas['SetTeamMemberRequest'], key) =>
    ask(api.POST('/api/editions/{edition}/set-team-member', { params: { path: path.value, header: once(key) }, body })),
  [keys.edition(props.edition), keys.places],
)
const problem = computed(() => set.problem.value ?? look.problem.value)

async function send(): Promise<void> {
  const answer = asked.value && (await set.run(asked.value))
  if (answer) emit('done', answer.sentence)
}
</script>

<template>
  <form novalidate @submit.prevent="send">
    <p class="line">
      <WordField v-if="!member" v-model="address" class="address" label="Mail address" placeholder="mail address" />
      <b v-else>{{ member.name }}</b>
      <span>is</span>
      <ChoiceField v-model="role" label="Role" :choices="roles.map((value) => ({ value, title: roleWords[value] }))" />
      <template v-if="role !== 'reader' && sections.length">
        <span>and teaches</span>
        <TickField v-for="section in sections" :key="section.id" v-model="teaches" :value="section.id">{{
          section.name
        }}</TickField>
      </template>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="line">
      <v-btn type="submit" class="meant" :disabled="!asked || set.busy.value">
        {{ member ? 'Change it' : 'Add to the team' }}
      </v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ look.answer.value?.sentence }}</span>
    </p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--space-4);
  padding: var(--space-5) 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
.address {
  flex: 0 1 280px;
}
</style>
