import { judgeMany } from '../support/judge-many'

judgeMany(1001, 1500)
