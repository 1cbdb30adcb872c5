/** The library that draws charts: half a megabyte, and so loaded by the first who needs it. */
export const plotLibrary = () => import('plotly.js-cartesian-dist-min').then((module) => module.default);
