/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { usePlanDrag } from './usePlanDrag';

const dropped: unknown[] = [];
const clicked: string[] = [];

function Plan() {
  const svg = useRef<SVGSVGElement>(null);
  const drag = usePlanDrag(
    svg,
    (...what) => dropped.push(what),
    (id) => clicked.push(id),
  );
  return (
    <svg ref={svg}>
      {['a', 'b'].map((id) => (
        <g key={id} data-testid={id} data-by={drag.draggedBy(id).join()} {...drag.handlers(id)} />
      ))}
    </svg>
  );
}

// a plan at twice its measure
beforeAll(() => {
  class Point {
    constructor(
      readonly x: number,
      readonly y: number,
    ) {}
    matrixTransform = (m: { scale: number }) => new Point(this.x * m.scale, this.y * m.scale);
  }
  Object.assign(globalThis, {
    DOMPoint: Point,
    PointerEvent: class extends MouseEvent {},
  });
  Object.assign(Element.prototype, { setPointerCapture: () => undefined });
  Object.assign(SVGElement.prototype, {
    getScreenCTM: () => ({ inverse: () => ({ scale: 0.5 }) }),
  });
});
beforeEach(() => {
  dropped.length = clicked.length = 0;
  render(<Plan />);
});
const at = (clientX: number, clientY: number) => ({ clientX, clientY });

test('what is dragged follows the pointer in the plan’s measure, and is dropped there', () => {
  const a = screen.getByTestId('a');
  fireEvent.pointerDown(a, at(100, 100));
  fireEvent.pointerMove(a, at(140, 80));
  expect(a.dataset['by']).toBe('20,-10');
  expect(screen.getByTestId('b').dataset['by']).toBe('0,0');
  // back near where it was it is still dragged
  fireEvent.pointerMove(a, at(102, 100));
  fireEvent.pointerUp(a);
  expect(dropped).toEqual([['a', 1, 0]]);
  expect(clicked).toEqual([]);
  expect(a.dataset['by']).toBe('0,0');
});

test('what was hardly moved was clicked; what is not held moves nothing; a cancelled drag drops nothing', () => {
  const [a, b] = [screen.getByTestId('a'), screen.getByTestId('b')];
  fireEvent.pointerDown(a, at(100, 100));
  fireEvent.pointerMove(a, at(105, 102));
  fireEvent.pointerMove(b, at(300, 300));
  fireEvent.pointerUp(b);
  fireEvent.pointerUp(a);
  expect(clicked).toEqual(['a']);
  fireEvent.pointerDown(a, at(100, 100));
  fireEvent.pointerMove(a, at(200, 200));
  fireEvent.pointerCancel(a);
  fireEvent.pointerUp(a);
  expect(dropped).toEqual([]);
  expect(clicked).toEqual(['a']);
});
