declare module 'plotly.js-cartesian-dist-min' {
  export * from 'plotly.js';
  const Plotly: typeof import('plotly.js');
  export default Plotly;
}
