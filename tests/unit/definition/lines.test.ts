import { judgeMany } from '../support/judge-many'
import { few } from '../support/thorough'

judgeMany(1, few(200, 4000))
