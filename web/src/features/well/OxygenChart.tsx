import { Chart, Filler, Legend, LineController, LineElement, LinearScale, PointElement } from 'chart.js';
import { useEffect, useRef } from 'react';
import { LINE_MG_L, type Forecast } from './forecast.ts';

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler, Legend);

/** Oxygen over two hours, pump off and on, each as the band between the highest and the lowest use. */
export function OxygenChart({ curve }: { curve: Forecast['curve'] }) {
  const canvas = useRef<HTMLCanvasElement | null>(null);
  useEffect(() => {
    const surface = canvas.current;
    if (!surface) return;
    const style = getComputedStyle(surface);
    const tone = (name: string): string => style.getPropertyValue(name).trim();
    const ink = style.color;
    const line = (
      label: string,
      of: (point: Forecast['curve'][number]) => number,
      colour: string,
      fill: string | false,
      dash: number[] = [],
    ) => ({
      // prettier-ignore
      label,
      data: curve.map((point) => ({ x: point.minute, y: of(point) })),
      borderColor: colour,
      backgroundColor: `${colour}22`,
      borderWidth: 2,
      borderDash: dash,
      pointRadius: 0,
      fill,
    });
    const [fault, clear] = [tone('--color-error'), tone('--color-success')];
    const chart = new Chart(surface, {
      type: 'line',
      data: {
        datasets: [
          line('pump off, most use', (one) => one.offLow, fault, false),
          line('pump off, least use', (one) => one.offHigh, fault, '-1', [4, 4]),
          line('pump on, most use', (one) => one.onLow, clear, false),
          line('pump on, least use', (one) => one.onHigh, clear, '-1', [4, 4]),
          line(`${LINE_MG_L} mg/l`, () => LINE_MG_L, ink, false, [2, 3]),
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { type: 'linear', title: { display: true, text: 'minutes', color: ink }, ticks: { color: ink, stepSize: 20 }, max: 120 }, // prettier-ignore
          y: { min: 0, title: { display: true, text: 'oxygen, mg/l', color: ink }, ticks: { color: ink } },
        },
        plugins: { legend: { labels: { color: ink, boxHeight: 1 } } },
      },
    });
    return () => chart.destroy();
  }, [curve]);
  return (
    <div className="h-72">
      <canvas ref={canvas} role="img" aria-label="Oxygen over two hours; the table below says the same" />
    </div>
  );
}
