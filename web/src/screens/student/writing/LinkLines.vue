<script setup lang="ts">
import { ref } from 'vue'
import WordField from '../../../parts/fields/WordField.vue'

/** The links that go with one's work. */
const props = defineProps<{ links: string[]; canWrite: boolean }>()
const emit = defineEmits<{ change: [links: string[]] }>()

const adding = ref(false)
const address = ref('')
const problem = ref('')

/** What one types without https:// is meant with it. */
function whole(typed: string): string | null {
  const text = typed.trim()
  try {
    const url = new URL(/^https?:\/\//i.test(text) ? text : `https://${text}`)
    return url.hostname.includes('.') && !url.username ? url.href : null
  } catch {
    return null
  }
}

function add(): void {
  const link = whole(address.value)
  if (!link) {
    problem.value = 'Give the whole address of a page, such as https://films.example/weather.'
    return
  }
  problem.value = ''
  address.value = ''
  adding.value = false
  if (!props.links.includes(link)) emit('change', [...props.links, link])
}
</script>

<template>
  <div class="links">
    <ul v-if="links.length" aria-label="Your links">
      <li v-for="link in links" :key="link">
        <a :href="link" target="_blank" rel="noopener noreferrer">{{ link }}</a>
        <button
          v-if="canWrite"
          type="button"
          class="word-button small"
          :aria-label="`Remove ${link}`"
          @click="
            emit(
              'change',
              links.filter((one) => one !== link),
            )
          "
        >
          remove
        </button>
      </li>
    </ul>
    <form v-if="adding && canWrite" class="add" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <WordField v-model="address" class="field" label="Address of the link" placeholder="https://" :maxlength="2000" />
      <v-btn type="submit" :disabled="address.trim() === ''">Add the link</v-btn>
      <span v-if="problem" class="small accent" role="alert">{{ problem }}</span>
    </form>
    <button v-else-if="canWrite" type="button" class="word-button" @click="adding = true">Add a link</button>
  </div>
</template>

<style scoped>
.links {
  display: grid;
  gap: var(--space-3);
  justify-items: start;
  padding-top: var(--space-4);
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-5);
  overflow-wrap: anywhere;
}
.add {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-3) var(--space-5);
}
.field {
  width: min(420px, 100%);
}
</style>
