import { ref } from 'vue'

/** Why a part of the program that is fetched late is not there; told beside the other notices. */
export const lateTrouble = ref<string | null>(null)

const TROUBLE =
  'A part of the program could not be loaded. The server may have stopped, or it has a newer version. Reload the page: everything is stored, also what is typed.'

/** Something that is fetched when it is first needed. @returns `null` where it does not come, which is told */
export async function latePart<T>(load: () => Promise<T>): Promise<T | null> {
  try {
    const part = await load()
    lateTrouble.value = null
    return part
  } catch (error) {
    tellLateTrouble(error)
    return null
  }
}

export function tellLateTrouble(error: unknown): void {
  lateTrouble.value = `${TROUBLE} (${error instanceof Error ? error.message.slice(0, 120) : 'unknown reason'})`
}
