<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import { questions } from '../../foundation/api/questions'

/** Through whose eyes. The team's see everything; a student's see that student's own screens, a pretend one's as well. */
const props = defineProps<{ edition: number; eyes: string | null }>()

const router = useRouter()
const viewpoint = useViewpoint()
const opened = ref(false)
const wanted = ref('')
const students = useAnswer(() => questions.students(props.edition))
const found = computed(() => {
  const written = wanted.value.trim().toLowerCase()
  return (students.data.value?.sections ?? [])
    .map((section) => ({
      ...section,
      students: section.students.filter((student) => student.name.toLowerCase().includes(written)),
    }))
    .filter((section) => section.students.length > 0)
})

async function look(section: number, as: string, named?: string): Promise<void> {
  opened.value = false
  const at = viewpoint.query.value.at
  await router.push({
    name: 'seen',
    params: { edition: props.edition, section },
    query: { ...(at && { at }), as, ...(named && { named }) },
  })
}

async function back(): Promise<void> {
  opened.value = false
  const at = viewpoint.query.value.at
  await router.push({ name: 'outline', params: { edition: props.edition }, query: at ? { at } : {} })
}
</script>

<template>
  <div class="lens">
    <span class="small">seen as</span>
    <v-menu v-model="opened" :close-on-content-click="false" location="bottom end">
      <template #activator="{ props: opener }">
        <button v-bind="opener" type="button" class="word-button who" :title="eyes ?? undefined">
          {{ eyes ?? 'the team' }}
        </button>
      </template>
      <section class="sheet" aria-label="Through whose eyes">
        <button v-if="eyes" type="button" class="word-button" @click="back">Back to the team’s view</button>
        <p class="field-name">Anyone in a section, or a made-up student in it</p>
        <ul class="anyone">
          <li v-for="section in students.data.value?.sections ?? []" :key="section.section">
            <button type="button" class="word-button" @click="look(section.section, `pretend:${section.section}`)">
              <SectionKey :letter="section.letter" :name="section.name" />
            </button>
            <template v-for="student in section.madeUp ?? []" :key="student.name">
              ·
              <button
                type="button"
                class="word-button"
                @click="
                  look(
                    section.section,
                    `pretend:${section.section}${student.facts && `~${student.facts}`}`,
                    student.name,
                  )
                "
              >
                {{ student.name }}
              </button>
            </template>
          </li>
        </ul>
        <label class="field-name" for="lens-name">A student</label>
        <v-text-field id="lens-name" v-model="wanted" autocomplete="off" placeholder="part of a name" />
        <p v-if="students.problem.value" class="small">{{ students.problem.value.title }}</p>
        <p v-else-if="found.length === 0" class="small">Nobody by that name in a section you teach.</p>
        <div class="names" tabindex="0">
          <template v-for="section in found" :key="section.section">
            <p class="small"><SectionKey :letter="section.letter" :name="section.name" /></p>
            <ul>
              <li v-for="student in section.students" :key="student.id">
                <button type="button" @click="look(section.section, `student:${student.id}`)">
                  {{ student.name }}
                </button>
              </li>
            </ul>
          </template>
        </div>
      </section>
    </v-menu>
  </div>
</template>

<style scoped>
.lens {
  display: grid;
  align-content: center;
  justify-items: start;
  white-space: nowrap;
}
.who {
  min-height: 24px;
  font-weight: 650;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.sheet {
  display: grid;
  gap: var(--space-4);
  width: 360px;
}
.names {
  max-height: 340px;
  overflow: auto;
}
.names p {
  padding: var(--space-4) 0 var(--space-2);
}
.anyone {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-7);
  padding-bottom: var(--space-4);
}
.names li button {
  display: block;
  width: 100%;
  padding: var(--space-2) 0;
}
.names li button:hover {
  text-decoration: underline;
}
</style>
