import { withPhotos } from './withPhotos';

test('figures read off a photo name the new one; others, and words that look alike, stay', () => {
  const record = {
    fans: [
      { id: 'a', impellerDiameterMm: { value: 58, origin: 'photo', photo: 'old', mark: 'm' } },
      { id: 'b', impellerDiameterMm: { value: 50, origin: 'photo', photo: 'else', mark: 'm' } },
    ],
    heatPipes: [{ along: [{ part: 'p', fromMm: { value: 1, origin: 'photo', photo: 'old' } }] }],
    note: { photo: 'old' },
  };
  expect(withPhotos(record, new Map([['old', 'new']]))).toEqual({
    fans: [
      { id: 'a', impellerDiameterMm: { value: 58, origin: 'photo', photo: 'new', mark: 'm' } },
      record.fans[1],
    ],
    heatPipes: [{ along: [{ part: 'p', fromMm: { value: 1, origin: 'photo', photo: 'new' } }] }],
    note: { photo: 'old' },
  });
  expect(withPhotos(record, new Map())).toBe(record);
});
