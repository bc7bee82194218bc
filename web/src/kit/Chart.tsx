import { useColorScheme } from '@mui/material/styles';
import { type ComponentProps, useEffect, useRef, useState } from 'react';
import ReactApexChart from 'react-apexcharts';
import { DAY, NIGHT, TEXT_FACE } from './theme.ts';

/** The package is CommonJS: one bundler hands over its exports, another its default. */
export const Chart = ((ReactApexChart as unknown as { default?: typeof ReactApexChart }).default ??
  ReactApexChart) as typeof ReactApexChart;

/** A chart on a page of many: drawn once it comes near what is seen, its place kept before. */
export function ChartInView(props: ComponentProps<typeof Chart> & { height: number }) {
  const place = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver(entries => entries.some(e => e.isIntersecting) && setNear(true), {
      rootMargin: '200px',
    });
    watch.observe(place.current as HTMLDivElement);
    return () => watch.disconnect();
  }, []);
  return (
    <div ref={place} style={{ minHeight: props.height }}>
      {near && <Chart {...props} />}
    </div>
  );
}

/** What every chart of ours leaves out, and its face. */
export const PLAIN_CHART = {
  toolbar: { show: false },
  animations: { enabled: false },
  fontFamily: TEXT_FACE,
  zoom: { enabled: false },
};

/** Fills that lie next to each other, by day and by night. */
const FILLS = {
  light: [
    '#4B1E3F',
    '#B8652A',
    '#4F7A4A',
    '#7A6A9C',
    '#A23B3B',
    '#8A7A4D',
    '#3D7F8C',
    '#C79A3B',
    '#6D5A53',
    '#9A5F86',
    '#5B6F3A',
  ],
  dark: [
    '#E2B3D3',
    '#F0A267',
    '#8CC48A',
    '#B9A7E0',
    '#EE8C80',
    '#D3C189',
    '#76BFCC',
    '#F2CC72',
    '#B59A90',
    '#DFA3CC',
    '#AFC486',
  ],
} as const;

/** The colours of the theme that is on, as plain values: a chart cannot read the page's own variables. */
export function useInk(): { palette: typeof DAY; fills: string[] } {
  const { mode, systemMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  return { palette: dark ? NIGHT : DAY, fills: [...FILLS[dark ? 'dark' : 'light']] };
}
