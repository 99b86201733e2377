/**
 * A number with the word for what is counted.
 *
 * @param many where it is not the word with an s
 * @example plural(1, 'screw') // '1 screw'
 * @example plural(2, 'battery', 'batteries') // '2 batteries'
 */
export const plural = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
