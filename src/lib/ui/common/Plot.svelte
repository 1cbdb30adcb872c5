<script lang="ts">
  import type { Data, Layout, LayoutAxis } from 'plotly.js';
  import { plotLibrary } from './plot-library';

  type Drawing = Awaited<ReturnType<typeof plotLibrary>>;

  /** A chart is data: traces and a layout made by a pure function. Its numbers stand beside it as text and table. */
  let {
    title,
    summary,
    traces,
    layout = {},
    onpick
  }: {
    title: string;
    summary: string;
    traces: Data[];
    layout?: Partial<Layout>;
    /** A point was pressed; gives its `customdata`. */
    onpick?: (key: string) => void;
  } = $props();
  let element = $state<HTMLDivElement>();
  let plotly = $state.raw<Drawing>();
  let theme = $state(0);

  /** After so long a chart that nobody has looked at yet is drawn as well. */
  const LATER_MS = 3000;

  /** The title of an axis in the size of its figures. */
  const titled = (axis: Partial<LayoutAxis> | undefined): Partial<LayoutAxis> =>
    axis?.title ? { ...axis, title: { ...axis.title, font: { size: 12 } } } : (axis ?? {});

  // A chart that is looked at is drawn at once; one further down when there is nothing else to do, so that it is there to be printed.
  $effect(() => {
    if (!element) return;
    let wanted = false;
    const want = () => {
      if (wanted) return;
      wanted = true;
      // One that could not be had is asked for again, the next time somebody looks.
      plotLibrary().then(
        (library) => (plotly = library),
        () => (wanted = false)
      );
    };
    const looking = new IntersectionObserver((seen) => seen.some(({ isIntersecting }) => isIntersecting) && want(), {
      rootMargin: '200px'
    });
    looking.observe(element);
    const idle = setTimeout(want, LATER_MS);
    addEventListener('beforeprint', want);
    return () => {
      looking.disconnect();
      clearTimeout(idle);
      removeEventListener('beforeprint', want);
    };
  });
  $effect(() => {
    const watcher = new MutationObserver(() => (theme += 1));
    watcher.observe(document.documentElement, { attributes: true, attributeFilter: ['theme'] });
    return () => watcher.disconnect();
  });
  $effect(() => {
    if (!plotly || !element) return;
    void theme;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const axis = {
      gridcolor: colour('--ash-line'),
      linecolor: colour('--ash-edge'),
      zerolinecolor: colour('--ash-line')
    };
    const [box, draw] = [element, plotly];
    // It writes into them, never into their numbers: to copy those takes longer than to draw them.
    const data = traces.map((trace) => ({ ...trace }));
    const shown: Partial<Layout> = {
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      font: { family: colour('--ash-font'), size: 12, color: colour('--ash-soft') },
      colorway: ['--ash-ink', '--ash-note', '--ash-edge', '--ash-soft', '--ash-band'].map(colour),
      margin: { l: 56, r: 12, t: 8, b: 40 },
      height: 240,
      legend: { orientation: 'h', y: 1.12 },
      ...layout,
      xaxis: { ...axis, ...titled(layout.xaxis) },
      yaxis: { ...axis, ...titled(layout.yaxis) }
    };
    const resize = new ResizeObserver(() => requestAnimationFrame(() => box.isConnected && draw.Plots.resize(box)));
    // In a moment of its own, after the next picture: what stands around it is seen before.
    const drawn = async () => {
      const chart = await draw.react(box, data, shown, { displayModeBar: false, responsive: false });
      chart.removeAllListeners('plotly_click');
      chart.on('plotly_click', ({ points }) => {
        const key: unknown = points[0]?.customdata;
        if (typeof key === 'string') onpick?.(key);
      });
      if (box.isConnected) resize.observe(box);
    };
    let drawing: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => (drawing = setTimeout(() => void drawn())));
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(drawing);
      resize.disconnect();
    };
  });
  $effect(() => {
    const [draw, box] = [plotly, element];
    return () => {
      if (draw && box) draw.purge(box);
    };
  });
</script>

<figure>
  <figcaption><strong>{title}</strong> <span class="quiet small">{summary}</span></figcaption>
  <!-- What it shows is said in the sentence above, and stands in a table beside it. -->
  <div bind:this={element} class="plot" style:min-height="{layout.height ?? 240}px" aria-hidden="true"></div>
</figure>

<style>
  figure {
    margin: 0;
    min-width: 0;
    /* Between a narrower window and the next drawing the old one must not widen the page. */
    overflow: hidden;
  }
</style>
