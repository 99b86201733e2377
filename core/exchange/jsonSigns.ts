/** Code units of the signs that a JSON text is built with (RFC 8259, section 2). */
export const QUOTE = 34;
export const COMMA = 44;
export const BACKSLASH = 92;
export const OPEN_LIST = 91;
export const CLOSE_LIST = 93;
export const OPEN_OBJECT = 123;
export const CLOSE_OBJECT = 125;
