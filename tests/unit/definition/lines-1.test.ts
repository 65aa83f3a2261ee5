import { judgeMany } from '../support/judge-many'

judgeMany(1, 500)
