<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import ForStudentPanel from '../ForStudentPanel.vue'

/** One looks through a student's eyes: what is in view can be made different for them from here. */
const props = defineProps<{ edition: number; student: number; name: string }>()
const levels = useLevels()

const route = useRoute()
const lens = useAnswer(() => questions.students(props.edition))
const item = computed(() =>
  route.name === 'seen-item' ? lens.data.value?.items.find((one) => one.id === Number(route.params.item)) : undefined,
)
const lists = useAnswer(() => questions.classLists(props.edition, {}))
const differs = computed(() =>
  lists.data.value?.sections.some((section) =>
    section.students.some((line) => line.student === props.student && line.differs.includes(item.value?.id ?? 0)),
  ),
)
const isOpen = ref(false)
watch(item, () => (isOpen.value = false))
</script>

<template>
  <section class="bar" :aria-label="`For ${name}`">
    <p class="line">
      <router-link
        class="word-button"
        :to="{ name: 'one-student', params: { edition, student }, query: { section: route.params.section } }"
        >all that is different for {{ name }}</router-link
      >
      <button v-if="item" type="button" class="word-button" :aria-expanded="isOpen" @click="isOpen = !isOpen">
        make this {{ levels.item.one }} different for them
      </button>
    </p>
    <ForStudentPanel
      v-if="item && isOpen"
      :edition="edition"
      :students="[student]"
      :name="name"
      :items="[{ id: item.id, title: `${item.code} ${item.title}`, differs: differs ? ['something'] : [] }]"
      @close="isOpen = false"
    />
  </section>
</template>

<style scoped>
.bar {
  background: var(--wash);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-7);
  padding: var(--space-3) var(--space-6);
}
</style>
