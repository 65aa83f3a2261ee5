import { judgeIcons } from '../unit/support/judge-icons'
import { judgeSets } from '../unit/support/judge-sets'

judgeIcons(1)
judgeSets(1)
