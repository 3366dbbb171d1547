/** A name or an address as a certificate has it: an IPv6 address without the brackets that it has in a URL. */
export const bare = (name: string) => name.replace(/^\[|\]$/g, '')
