import { againRows } from './again'
console.log(JSON.stringify(await againRows([Number(process.argv[2] ?? 2000)]), null, 1))
process.exit(0)
