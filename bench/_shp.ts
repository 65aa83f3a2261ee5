import { handRows } from './_browser'
console.log(JSON.stringify(await handRows(), null, 1))
