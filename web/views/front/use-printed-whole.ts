import { useEffect, type RefObject } from 'react';

/** What a printed drawing keeps about it for names and figures, px. */
const AROUND = 70;

/** A shaft as it lies on the screen, px. */
interface OnScreen {
  x: number;
  y: number;
  r: number;
}

/** On paper the drawing is whole, however it is zoomed or moved on the screen. */
export function usePrintedWhole(svg: RefObject<SVGSVGElement | null>, shafts: readonly OnScreen[]): void {
  useEffect(() => {
    const drawing = svg.current;
    if (!drawing || shafts.length === 0) return;
    const min = (edge: (screen: OnScreen) => number) => Math.min(...shafts.map(edge)) - AROUND;
    const max = (edge: (screen: OnScreen) => number) => Math.max(...shafts.map(edge)) + AROUND;
    const [left, top] = [min(({ x, r }) => x - r), min(({ y, r }) => y - r)];
    const [right, bottom] = [max(({ x, r }) => x + r), max(({ y, r }) => y + r)];
    let charts: readonly Element[] = [];
    const fit = () => {
      drawing.setAttribute('viewBox', `${left} ${top} ${right - left} ${bottom - top}`);
      // The chart beside it is as wide as the screen: it is made as narrow as the paper.
      charts = [...document.querySelectorAll('.unrolled svg[width][height]:not([viewBox])')];
      for (const chart of charts)
        chart.setAttribute('viewBox', `0 0 ${chart.getAttribute('width')!} ${chart.getAttribute('height')!}`);
    };
    const back = () => {
      for (const picture of [drawing, ...charts]) picture.removeAttribute('viewBox');
      charts = [];
    };
    window.addEventListener('beforeprint', fit);
    window.addEventListener('afterprint', back);
    return () => {
      window.removeEventListener('beforeprint', fit);
      window.removeEventListener('afterprint', back);
      back();
    };
  }, [svg, shafts]);
}
