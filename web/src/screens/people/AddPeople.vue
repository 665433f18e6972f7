<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Problem, Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import TextFile from '../../parts/fields/TextFile.vue'
import { readPasted } from './people'

/** People are added, one on each line: written, or pasted from a list. How each line was read stands beside it. */
const props = defineProps<{ problem: Problem | null; busy: boolean; known: readonly string[]; hasMail: boolean }>()
const byMail = defineModel<boolean>('byMail', { required: true })
const emit = defineEmits<{ add: [people: Schemas['NewPerson'][]]; close: [] }>()

const text = ref('')
const role = ref<'teacher' | 'student' | 'office'>('teacher')
const lines = computed(() => readPasted(text.value))
const addresses = computed(() => new Set(props.known.map((email) => email.toLowerCase())))
const understood = computed(() => lines.value.flatMap((line) => ('name' in line ? [line] : [])))
const fresh = computed(() => understood.value.filter((line) => !addresses.value.has(line.email.toLowerCase())))
const reach = computed(() => {
  const [wrong, there] = [lines.value.length - understood.value.length, understood.value.length - fresh.value.length]
  return [
    ...(wrong ? [`${counted(wrong, 'line')} cannot be read yet`] : []),
    ...(there
      ? [`${there} ${there === 1 ? 'has' : 'have'} an account already and ${there === 1 ? 'is' : 'are'} left as it is`]
      : []),
    ...(fresh.value.length
      ? [
          props.hasMail && byMail.value
            ? 'Each is mailed a link to set a password, which works for a day.'
            : 'Each gets a link to set a password, which works for a day; you pass it on.',
        ]
      : []),
  ].join('. ')
})

const send = () =>
  emit(
    'add',
    fresh.value.map(({ name, email }) => ({
      name,
      email,
      office: role.value === 'office',
      teacher: role.value === 'teacher',
    })),
  )
</script>

<template>
  <CommandPanel
    leave="Not now"
    label="Add people"
    :problem="problem"
    :reach="reach"
    :meant="fresh.length ? `Add ${counted(fresh.length, 'person', 'people')}` : 'Add people'"
    :disabled="busy || fresh.length === 0"
    @submit="send"
    @close="emit('close')"
  >
    <div class="paste">
      <div>
        <label class="field-name" for="pasted">Names and mail addresses, one person on each line</label>
        <v-textarea
          id="pasted"
          v-model="text"
          rows="6"
          no-resize
          autofocus
          placeholder="Marit Oyelaran, marit.oyelaran@school.example"
        />
        <TextFile label="The file with people" @read="(read) => (text = read)" />
        <p class="role">
          <span>they are</span>
          <OneOfField
            v-model="role"
            label="Role"
            :choices="[
              { value: 'teacher', title: 'teachers' },
              { value: 'student', title: 'students' },
              { value: 'office', title: 'school office' },
            ]"
          />
        </p>
        <v-checkbox v-if="hasMail" v-model="byMail" label="mail them their links" />
      </div>
      <ol class="small" aria-label="How each line was read">
        <li v-for="line in lines" :key="line.line" :class="{ accent: !('name' in line) }">
          <template v-if="'name' in line">
            <b>{{ line.name }}</b> {{ line.email }}
            <span v-if="addresses.has(line.email.toLowerCase())" class="second">has an account already</span>
          </template>
          <template v-else>line {{ line.line }}: {{ line.wrong }}</template>
        </li>
        <li v-if="lines.length === 0" class="second">Each line appears here as it is read.</li>
      </ol>
    </div>
  </CommandPanel>
</template>

<style scoped>
.paste {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-8);
}
ol {
  display: grid;
  align-content: start;
  gap: var(--space-2);
  max-height: 190px;
  overflow: auto;
  list-style: none;
}
.role {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
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
