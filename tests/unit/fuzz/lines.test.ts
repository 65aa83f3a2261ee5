import { fuzzLines } from '../support/fuzz-lines'
import { few } from '../support/thorough'

fuzzLines(1, few(1000, 9000))
