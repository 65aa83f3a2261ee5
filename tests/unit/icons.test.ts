import { judgeIcons } from './support/judge-icons'
import { few } from './support/thorough'

judgeIcons(few(7, 1))
