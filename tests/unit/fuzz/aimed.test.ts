import { judgeAimed } from '../support/judge-aimed'

judgeAimed(1, 60)
