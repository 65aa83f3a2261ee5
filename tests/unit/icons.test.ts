import { judgeIcons } from './support/judge-icons'

// All of them are in `npm run soak`.
judgeIcons(4)
