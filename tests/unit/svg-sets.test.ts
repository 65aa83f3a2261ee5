import { judgeSets } from './support/judge-sets'

// All of them are in `npm run soak`.
judgeSets(3)
