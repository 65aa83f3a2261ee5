/** Ends an id and begins the tag of an image: no id of a line that was drawn holds it. */
const TAG = '~'

/** The id of what stands in an image. */
export const idIn = (id: string, tag: string): string => `${id}${TAG}${tag}`

/** The tag of the image in which something stands; null for what was drawn. */
export const tagOf = (id: string): string | null => (isImage(id) ? id.slice(id.lastIndexOf(TAG) + 1) : null)

/** The tags of all images in which something stands, in their order; none for what was drawn. */
export const tagsOf = (id: string): string[] => id.split(TAG).slice(1)

/** The id of the line that was drawn of which one is an image; its own where it is none. */
export const originOf = (id: string): string => id.split(TAG, 1)[0]!

/** Whether something stands there because lines are mirrored or repeated. */
export const isImage = (id: string): boolean => id.includes(TAG)
