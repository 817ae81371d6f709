import temml from 'temml'
import type { Formula } from './formula'

/** A formula as MathML; as text in it where it is no equation. */
export const mathmlOf = ({ tex, statement }: Formula): string =>
  temml.renderToString(tex ?? `\\text{${statement.replace(/[\\{}$%#&_^~`]/g, '')}}`, { xml: true, throwOnError: true })
