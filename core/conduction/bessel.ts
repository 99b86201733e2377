/**
 * Modified Bessel functions of the second kind, orders 0 and 1, for x > 0; relative error below 1e-6.
 * Source: Abramowitz & Stegun, 9.8.5–9.8.8 with 9.8.1 and 9.8.3; from memory, checked in the tests.
 */
export function besselK0(x: number): number {
  if (x <= 2) {
    const y = (x * x) / 4;
    return (
      -Math.log(x / 2) * besselI0(x) +
      (-0.57721566 +
        y *
          (0.4227842 +
            y *
              (0.23069756 + y * (0.0348859 + y * (0.00262698 + y * (0.0001075 + y * 0.0000074))))))
    );
  }
  const y = 2 / x;
  return (
    (Math.exp(-x) / Math.sqrt(x)) *
    (1.25331414 +
      y *
        (-0.07832358 +
          y *
            (0.02189568 +
              y * (-0.01062446 + y * (0.00587872 + y * (-0.0025154 + y * 0.00053208))))))
  );
}

/** See {@link besselK0}. */
export function besselK1(x: number): number {
  if (x <= 2) {
    const y = (x * x) / 4;
    return (
      Math.log(x / 2) * besselI1(x) +
      (1 / x) *
        (1 +
          y *
            (0.15443144 +
              y *
                (-0.67278579 +
                  y * (-0.18156897 + y * (-0.01919402 + y * (-0.00110404 - y * 0.00004686))))))
    );
  }
  const y = 2 / x;
  return (
    (Math.exp(-x) / Math.sqrt(x)) *
    (1.25331414 +
      y *
        (0.23498619 +
          y *
            (-0.0365562 +
              y * (0.01504268 + y * (-0.00780353 + y * (0.00325614 - y * 0.00068245))))))
  );
}

function besselI0(x: number): number {
  const t = (x / 3.75) ** 2;
  return (
    1 +
    t *
      (3.5156229 +
        t * (3.0899424 + t * (1.2067492 + t * (0.2659732 + t * (0.0360768 + t * 0.0045813)))))
  );
}

function besselI1(x: number): number {
  const t = (x / 3.75) ** 2;
  return (
    x *
    (0.5 +
      t *
        (0.87890594 +
          t *
            (0.51498869 + t * (0.15084934 + t * (0.02658733 + t * (0.00301532 + t * 0.00032411))))))
  );
}

/**
 * Bessel function of the first kind, order 0; absolute error below 1e-7.
 * Source: Abramowitz & Stegun, 9.4.1 and 9.4.3; from memory, checked in the tests.
 */
export function besselJ0(x: number): number {
  const a = Math.abs(x);
  if (a <= 3) {
    const y = (a / 3) ** 2;
    return (
      1 +
      y *
        (-2.2499997 +
          y * (1.2656208 + y * (-0.3163866 + y * (0.0444479 + y * (-0.0039444 + y * 0.00021)))))
    );
  }
  const y = 3 / a;
  const amplitude =
    0.79788456 +
    y *
      (-0.00000077 +
        y *
          (-0.0055274 + y * (-0.00009512 + y * (0.00137237 + y * (-0.00072805 + y * 0.00014476)))));
  const phase =
    a -
    0.78539816 +
    y *
      (-0.04166397 +
        y *
          (-0.00003954 +
            y * (0.00262573 + y * (-0.00054125 + y * (-0.00029333 + y * 0.00013558)))));
  return (amplitude * Math.cos(phase)) / Math.sqrt(a);
}
