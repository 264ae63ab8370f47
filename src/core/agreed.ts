/** What two programs of the house call by one name: neither could find the other's by another. */

/** The header in which a page says whom it was made for, by their id as a person of the firm. */
export const personHeader = 'x-spillway-person'

/** Where a browser keeps the field screens for a cellar without a connection. */
export const keptPages = 'spillway-field-pages'
