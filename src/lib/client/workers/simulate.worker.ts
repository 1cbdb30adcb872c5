import { simulate, type SimulateInput, type SimulateReport } from '#core/simulate/simulate';

/** What the page asks; answers carry the number of their question, and which of the set-ups it is. */
export type SimulateQuestion = { asked: number; inputs: readonly SimulateInput[] };
export type SimulateReply = { asked: number; at: number; result: SimulateReport | null };

addEventListener('message', ({ data }: MessageEvent<SimulateQuestion>) => {
  data.inputs.forEach((input, at) => {
    const reply: SimulateReply = { asked: data.asked, at, result: simulate(input) };
    postMessage(reply);
  });
});
