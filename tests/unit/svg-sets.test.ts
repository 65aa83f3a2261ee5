import { judgeSets } from './support/judge-sets'
import { few } from './support/thorough'

judgeSets(few(6, 1))
