import { useSessionStorage } from '@vueuse/core'

/** The address that was chosen for the link of this tab’s room; it stays over a reload, as the room does. */
export const chosenAddress = useSessionStorage<string>('remetra-address', '')
