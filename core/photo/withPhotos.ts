import { isObject } from '../record/plainJson';

/**
 * A record whose figures are read off other photos: those of a machine that was taken over with photos of its own.
 *
 * @param photos new ids by the old ones
 */
export function withPhotos<T>(record: T, photos: ReadonlyMap<string, string>): T {
  if (photos.size === 0) return record;
  const walk = (at: unknown): unknown => {
    if (Array.isArray(at)) return at.map(walk);
    if (!isObject(at)) return at;
    return Object.fromEntries(
      Object.entries(at).map(([key, value]) => {
        const own = key === 'photo' && typeof value === 'string' && at['origin'] === 'photo';
        return [key, own ? (photos.get(value) ?? value) : walk(value)];
      }),
    );
  };
  return walk(record) as T;
}
