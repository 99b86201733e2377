/** The theme's colours where a chart is drawn. */
export function themeColours(element: HTMLElement) {
  const style = getComputedStyle(element);
  const read = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: read('--color-base-content'),
    rule: read('--color-base-300'),
    ground: read('--color-base-100'),
    air: read('--color-primary'),
    heat: read('--color-secondary'),
  };
}
