<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { type Schemas } from '../../../foundation/api/client'
import { useAnswer } from '../../../foundation/useAnswer'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import ProblemNote from '../../../parts/ProblemNote.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { questions } from '../../../foundation/api/questions'

/** For whom an item is: for everyone, or for groups, which may be named before there are students. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const edition = toRef(props, 'edition')
const groups = useAnswer(() => questions.groups(props.edition))
const names = computed(() => (groups.data.value?.groups ?? []).map((group) => group.name))
const some = ref(props.item.forGroups !== null)
const inGroups = ref<string[]>([...(props.item.forGroups ?? [])])
const except = ref<string[]>([...props.item.notForGroups])
const name = ref('')
const set = useEditionCommand(edition, '/api/editions/{edition}/for-whom')
const add = useEditionCommand(edition, '/api/editions/{edition}/add-group')
const same = (one: string[] | null, other: string[] | null) =>
  JSON.stringify(one && [...one].sort()) === JSON.stringify(other && [...other].sort())
const request = computed(() => {
  const wanted = some.value ? inGroups.value : null
  return (same(wanted, props.item.forGroups) && same(except.value, props.item.notForGroups)) ||
    (some.value && inGroups.value.length === 0)
    ? null
    : { item: props.item.id, groups: wanted, except: except.value, version: props.item.version }
})
const reach = useReach(request, set.preview)

async function send(): Promise<void> {
  if (!request.value) return emit('close')
  await set.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}

const addGroup = () =>
  add.run({ name: name.value }).then(
    () => (name.value = ''),
    () => undefined,
  )
</script>

<template>
  <form class="editor" @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
    <p class="line">
      <OneOfField
        v-model="some"
        label="For whom"
        :choices="[
          { value: false, title: 'for everyone' },
          { value: true, title: 'only for those in' },
        ]"
      />
      <TickField v-for="one in names" :key="one" v-model="inGroups" :value="one" :label="one" :disabled="!some" />
      <span v-if="names.length === 0" class="second">there are no groups yet</span>
    </p>
    <p v-if="names.length > 0" class="line">
      <span>but not for those in</span>
      <TickField v-for="one in names" :key="one" v-model="except" :value="one" :label="one" />
    </p>
    <p class="line">
      <span>a new group</span>
      <WordField v-model="name" label="A new group" :maxlength="60" @keydown.enter.prevent="addGroup" />
      <button type="button" class="word-button" :disabled="!name.trim() || add.busy.value" @click="addGroup">
        add it
      </button>
      <span class="small">Put students in it in Sections, now or later. Students never see it.</span>
    </p>
    <ProblemNote v-if="set.problem.value ?? add.problem.value" :problem="(set.problem.value ?? add.problem.value)!" />
    <p class="line">
      <v-btn type="submit" class="meant" :disabled="!request || set.busy.value">Save</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>
