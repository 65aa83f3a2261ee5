// The parts of the package that are needed, without its tables of all properties.
declare module 'css-tree/parser' {
  import type { parse } from 'css-tree'

  const parser: typeof parse
  export default parser
}
declare module 'css-tree/generator' {
  import type { generate } from 'css-tree'

  const generator: typeof generate
  export default generator
}
