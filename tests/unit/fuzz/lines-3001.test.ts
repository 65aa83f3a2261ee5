import { fuzzLines } from '../support/fuzz-lines'

fuzzLines(3001, 6000)
