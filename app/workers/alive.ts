/** What a worker says now and then while long work goes on in it. */
export const ALIVE = 'alive'
