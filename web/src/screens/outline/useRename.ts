import { refDebounced } from '@vueuse/core'
import { type Ref, computed, ref, watch } from 'vue'
import { type Conflict, type Schemas, problemOf } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'

/** Giving an item another title: what is written, what it would do, and what someone else has done meanwhile. */
export function useRename(edition: Ref<number>, item: Ref<Schemas['OutlineItem']>) {
  const read = ref({ title: item.value.title, version: item.value.version })
  const title = ref(item.value.title)
  const reach = ref('')
  const conflict = ref<Conflict | null>(null)
  const rename = useEditionCommand(edition, '/api/editions/{edition}/rename-item')
  const request = computed(() => ({ item: item.value.id, title: title.value, version: read.value.version }))
  const changed = computed(() => title.value.trim() !== read.value.title)

  // What someone else wrote meanwhile is told, never put in place of what is being written.
  const theirs = computed(() => (item.value.title !== read.value.title && !conflict.value ? item.value.title : null))
  watch(item, (now) => {
    if (now.version === read.value.version) return
    const untouched = !changed.value
    if (untouched) title.value = now.title
    if (untouched || now.title === read.value.title) read.value = { title: now.title, version: now.version }
  })

  const settled = refDebounced(title, 250)
  watch(settled, async (written) => {
    reach.value = ''
    if (!changed.value || theirs.value !== null) return
    try {
      const answer = await rename.preview(request.value)
      if (written === title.value) reach.value = answer.reach.sentence
    } catch {
      // What is wrong with it is said when it is sent.
    }
  })

  async function send(): Promise<boolean> {
    try {
      await rename.run(request.value)
      conflict.value = null
      return true
    } catch (error) {
      conflict.value = problemOf(error).conflict ?? null
      return false
    }
  }

  function settle(now: { title: string; version: number }): void {
    read.value = now
    conflict.value = null
    rename.reset()
  }

  /** Gives up what was written for what stands there now. */
  function keepTheirs(now: { title: string; version: number }): void {
    settle(now)
    title.value = now.title
  }

  /** Sends what was written again, over what stands there now. */
  function useMine(now: { title: string; version: number }): Promise<boolean> {
    settle(now)
    return send()
  }

  return {
    title,
    changed,
    reach,
    conflict,
    theirs,
    send,
    keepTheirs,
    useMine,
    busy: rename.busy,
    problem: rename.problem,
  }
}
