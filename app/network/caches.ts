/** The cache of pictures for times without the server. */
export const PICTURES = 'bellatrait-pictures'
