import { fuzzLines } from '../unit/support/fuzz-lines'
import { judgeMany } from '../unit/support/judge-many'

judgeMany(401, 4000)
fuzzLines(1501, 9000)
