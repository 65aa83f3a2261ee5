import { judgeMany } from '../support/judge-many'

// Thousands more are in `npm run soak`.
judgeMany(1, 400)
