import { judgeMany } from '../support/judge-many'

judgeMany(501, 1000)
