// Loaded before a server that is measured: how long its event loop stood still, and how much memory it took.
import { monitorEventLoopDelay } from 'node:perf_hooks';

const delay = monitorEventLoopDelay({ resolution: 2 });
delay.enable();
process.on('message', (what) => {
  if (what === 'begin') delay.reset();
  else
    process.send?.({
      maxMs: delay.max / 1e6,
      p99Ms: delay.percentile(99) / 1e6,
      peakMb: process.resourceUsage().maxRSS / 1024,
    });
});
process.channel?.unref();
