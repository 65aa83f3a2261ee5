import { judgeAimed } from '../unit/support/judge-aimed'

judgeAimed(101, 20_100)
