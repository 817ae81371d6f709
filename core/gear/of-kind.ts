/**
 * Tells one kind from the others, be it of a box or of a stage joined with its box.
 * A kind is compared nowhere but in the folder of that kind: the rest of the program asks by its name.
 */
export const ofKind =
  <K extends string>(kind: K) =>
  <T extends { readonly kind?: unknown }>(one: T | null | undefined): one is T & { readonly kind: K } =>
    one?.kind === kind
