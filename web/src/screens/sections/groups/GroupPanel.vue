<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import { useAnswer } from '../../../foundation/useAnswer'
import { counted } from '../../../foundation/words'
import CommandPanel from '../../../parts/CommandPanel.vue'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import TextFile from '../../../parts/fields/TextFile.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { groupsOf, readGroups } from './groupList'

/** A section’s students are divided into groups: by lot, with some kept apart, or as a list says. Seen before it is done. */
const props = defineProps<{
  edition: number
  section: Schemas['GroupSection']
  way: 'lot' | 'list'
}>()
const emit = defineEmits<{ close: [] }>()

const size = ref<number | null>(3)
const called = ref(props.section.name.slice(0, 56))
const seed = ref(Math.floor(Math.random() * 1_000_000))
const apart = ref<[number, number][]>([])
const one = ref<number | null>(null)
const other = ref<number | null>(null)
const text = ref('')

const byId = computed(() => new Map(props.section.students.map((student) => [student.id, student.name])))
const nameOf = (student: number) => byId.value.get(student) ?? ''
const people = computed(() =>
  props.section.students.map(({ id, name }) => ({ value: id as number | null, title: name })),
)
const keepApart = () => {
  const [first, second] = [one.value, other.value]
  if (first === null || second === null || first === second) return
  if (!apart.value.some((pair) => pair.includes(first) && pair.includes(second))) apart.value.push([first, second])
  one.value = other.value = null
}

const drawn = useAnswer(
  () =>
    questions.drawGroups(props.edition, {
      section: props.section.id,
      size: size.value ?? 2,
      apart: apart.value.map((pair) => pair.join('-')).join(','),
      seed: seed.value,
    }),
  { enabled: computed(() => props.way === 'lot' && size.value !== null), stays: true },
)
const lines = computed(() => readGroups(text.value, props.section.students))
const wrong = computed(() => lines.value.flatMap((line) => ('wrong' in line ? [line] : [])))
const groups = computed(() =>
  props.way === 'list'
    ? groupsOf(lines.value)
    : size.value === null
      ? []
      : (drawn.data.value?.groups ?? []).map((members, n) => ({ name: `${called.value.trim()} ${n + 1}`, members })),
)
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/group-students')
const request = computed(() =>
  groups.value.length > 0 && (props.way === 'list' || called.value.trim())
    ? { section: props.section.id, groups: groups.value }
    : null,
)
const reach = useReach(request, change.preview)
const many = computed(() => groups.value.reduce((sum, group) => sum + group.members.length, 0))

async function send(): Promise<void> {
  if (!request.value) return
  await change.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    :label="way === 'lot' ? 'Draw groups by lot' : 'Groups from a list'"
    :problem="change.problem.value ?? drawn.problem.value"
    :reach="reach"
    :meant="
      groups.length ? `Put ${counted(many, 'student')} into ${counted(groups.length, 'group')}` : 'Make the groups'
    "
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <template v-if="way === 'lot'">
      <p class="line">
        <span>Draw groups of</span>
        <NumberField v-model="size" label="How many in a group" :min="2" :max="50" autofocus />
        <span>called</span>
        <WordField v-model="called" class="name" label="What the groups are called" :maxlength="56" />
        <span class="second">1, 2, 3 …</span>
      </p>
      <p class="line">
        <span>Not together:</span>
        <span v-for="(pair, n) in apart" :key="pair.join()" class="pair">
          {{ nameOf(pair[0]) }} and {{ nameOf(pair[1]) }}
          <button type="button" class="word-button small" @click="apart.splice(n, 1)">
            remove<span class="said-only">: {{ nameOf(pair[0]) }} and {{ nameOf(pair[1]) }}</span>
          </button>
        </span>
        <ChoiceField v-model="one" label="A student" placeholder="a student" :choices="people" />
        <span>and</span>
        <ChoiceField v-model="other" label="Another student" placeholder="another" :choices="people" />
        <button
          type="button"
          class="word-button"
          :disabled="one === null || other === null || one === other"
          @click="keepApart"
        >
          keep apart
        </button>
      </p>
      <p v-if="drawn.data.value && !drawn.data.value.found" class="accent">
        No way was found to keep all of them apart. Draw smaller groups, or keep fewer apart.
      </p>
    </template>
    <div v-else class="paste">
      <div>
        <label class="field-name" for="pasted-groups">A student and a group on each line</label>
        <v-textarea
          id="pasted-groups"
          v-model="text"
          rows="4"
          no-resize
          autofocus
          placeholder="Aino Abara, Quay"
          :maxlength="100000"
        />
        <TextFile label="The list’s file" @read="(read) => (text = read)" />
      </div>
      <ul class="small" aria-label="Lines that cannot be read">
        <li v-for="line in wrong" :key="line.line" class="accent">
          line {{ line.line }}, {{ line.text }}: {{ line.wrong }}
        </li>
        <li v-if="wrong.length === 0" class="second">Whoever is on no line stays where they are.</li>
      </ul>
    </div>
    <ol v-if="groups.length" class="drawn" aria-label="The groups">
      <li v-for="group in groups" :key="group.name">
        <b>{{ group.name }}</b>
        <span v-for="student in group.members" :key="student">{{ nameOf(student) }}</span>
      </li>
    </ol>
    <template v-if="way === 'lot'" #more>
      <v-btn :disabled="size === null" @click="seed += 1">Draw again</v-btn>
    </template>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 200px;
}
.pair {
  background: var(--ground);
  padding: 0 var(--space-3);
}
.paste {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-8);
}
.paste ul {
  max-height: 180px;
  overflow: auto;
}
.drawn {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: var(--space-4) var(--space-6);
  max-height: 260px;
  overflow: auto;
  list-style: none;
}
.drawn li {
  display: grid;
  align-content: start;
}
b {
  font-weight: 600;
}
@media (max-width: 700px) {
  .paste {
    grid-template-columns: 1fr;
  }
}
</style>
