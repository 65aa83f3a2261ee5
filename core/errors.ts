/** Input that cannot be used. `field` names what is wrong, as a path into the input ("weight.stops[2].left"). */
export class InputError extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message)
    this.name = 'InputError'
  }
}
