/** Says that an answer is an old one, kept from when the server was there. */
export const KEPT_HEADER = 'X-Zugluft-Kept';
