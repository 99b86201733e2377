import { focalOfExif } from './focalOfExif';

test('from film: 26 mm on 4000 × 3000 px, worked by hand', () => {
  // 26 / 43.27 of a diagonal of 5000 px
  expect(focalOfExif({ FocalLengthIn35mmFilm: 26 }, [4000, 3000])).toBeCloseTo(3004.4, 1);
  expect(focalOfExif({ FocalLengthIn35mmFilm: 26 }, [3000, 4000])).toBeCloseTo(3004.4, 1);
});

test('from its own focal length and pixels an inch or centimetre, and of a file with fewer pixels', () => {
  const own = { FocalLength: 10, FocalPlaneXResolution: 5080 };
  // 200 px a mm
  expect(focalOfExif(own, [4000, 3000])).toBeCloseTo(2000, 9);
  const cm = { ...own, FocalPlaneXResolution: 2000, FocalPlaneResolutionUnit: 3 };
  expect(focalOfExif(cm, [4000, 3000])).toBeCloseTo(2000, 9);
  expect(focalOfExif({ ...own, PixelXDimension: 8000 }, [4000, 3000])).toBeCloseTo(1000, 9);
});

test('nothing where nothing is written, or nonsense', () => {
  expect(focalOfExif(null, [4000, 3000])).toBeNull();
  expect(focalOfExif({}, [4000, 3000])).toBeNull();
  expect(focalOfExif({ FocalLengthIn35mmFilm: 0, FocalLength: -1 }, [4000, 3000])).toBeNull();
  expect(
    focalOfExif(
      { FocalLength: 10, FocalPlaneXResolution: 5080, FocalPlaneResolutionUnit: 9 },
      [4000, 3000],
    ),
  ).toBeNull();
});
