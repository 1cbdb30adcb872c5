<script lang="ts">
  import type { Data, Layout, LayoutAxis } from 'plotly.js';
  import type * as Plotly from 'plotly.js-cartesian-dist-min';

  type Drawing = (typeof Plotly)['default'];

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

  /** The title of an axis in the size of its figures. */
  const titled = (axis: Partial<LayoutAxis> | undefined): Partial<LayoutAxis> =>
    axis?.title ? { ...axis, title: { ...axis.title, font: { size: 12 } } } : (axis ?? {});

  $effect(() => {
    void import('plotly.js-cartesian-dist-min').then((module) => (plotly = module.default));
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
    const box = element;
    const drawing = plotly.react(
      element,
      $state.snapshot(traces) as Data[],
      {
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
      },
      { displayModeBar: false, responsive: false }
    );
    void drawing.then((drawn) => {
      drawn.removeAllListeners('plotly_click');
      drawn.on('plotly_click', ({ points }) => {
        const key: unknown = points[0]?.customdata;
        if (typeof key === 'string') onpick?.(key);
      });
    });
    const draw = plotly;
    const resize = new ResizeObserver(() => requestAnimationFrame(() => box.isConnected && draw.Plots.resize(box)));
    resize.observe(box);
    return () => resize.disconnect();
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
