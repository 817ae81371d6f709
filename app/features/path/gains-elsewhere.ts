import type { InjectionKey } from 'vue'

/** True inside a card whose gains already stand in their column: there they are not shown twice. */
export const GAINS_ELSEWHERE: InjectionKey<boolean> = Symbol('gains elsewhere')
