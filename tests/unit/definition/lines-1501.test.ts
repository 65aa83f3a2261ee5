import { judgeMany } from '../support/judge-many'

judgeMany(1501, 2000)
