import { ref } from 'vue'

/** Log entries of any session that the storage has not taken yet: they are in this tab only. */
export const unlogged = ref(0)

/** Why they are not stored, in words. */
export const logTrouble = ref<string | null>(null)
