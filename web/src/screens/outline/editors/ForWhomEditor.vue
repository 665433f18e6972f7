<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { api, type Schemas } from '../../../foundation/api/client'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useEditionCommand } from '../../../foundation/useEditionCommand'
import { useReach } from '../../../foundation/useReach'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** For whom an item is: for everyone, or for groups, which may be named before there are students. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const edition = toRef(props, 'edition')
const groups = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'groups', '')),
  () => api.GET('/api/editions/{edition}/groups', { params: { path: { edition: props.edition } } }),
)
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
      <label><input v-model="some" type="radio" :value="false" />for everyone</label>
      <label><input v-model="some" type="radio" :value="true" />only for those in</label>
      <label v-for="one in names" :key="one"
        ><input v-model="inGroups" type="checkbox" :value="one" :disabled="!some" />{{ one }}</label
      >
      <span v-if="names.length === 0" class="second">no group is named yet</span>
    </p>
    <p v-if="names.length > 0" class="line">
      <span>but not for those in</span>
      <label v-for="one in names" :key="one"><input v-model="except" type="checkbox" :value="one" />{{ one }}</label>
    </p>
    <p class="line">
      <label
        >a new group
        <input v-model="name" type="text" maxlength="60" autocomplete="off" @keydown.enter.prevent="addGroup"
      /></label>
      <button type="button" class="word-button" :disabled="!name.trim() || add.busy.value" @click="addGroup">
        name it
      </button>
      <span class="small"
        >Who is in it is said in Sections, now or when there are students. Students never see it.</span
      >
    </p>
    <ProblemNote v-if="set.problem.value ?? add.problem.value" :problem="(set.problem.value ?? add.problem.value)!" />
    <p class="line">
      <v-btn type="submit" class="meant" :disabled="!request || set.busy.value">Have it so</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>
