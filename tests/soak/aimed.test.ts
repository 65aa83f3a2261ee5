import { judgeAimed } from '../unit/support/judge-aimed'

judgeAimed(61, 20_060)
