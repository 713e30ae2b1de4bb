import { closedRatio, explain, type ClosedTurns, type Working } from '@hot-spline/core';
import { EXACT } from '../frame/figure';

/** Working of the ratio of a closed axle by turns. */
export const explainClosed = (turns: ClosedTurns): Working =>
  explain({
    title: 'Ratio by turns, closed',
    formula: 'ratio = 2 × turns of the prop shaft ÷ (turns of both wheels together); of a transaxle ÷ its gear',
    inputs: [
      { key: 'propTurns', label: 'prop shaft, turns', value: turns.propTurns, quantity: 'count' },
      { key: 'leftTurns', label: 'left wheel, turns', value: turns.leftTurns, quantity: 'count' },
      { key: 'rightTurns', label: 'right wheel, turns', value: turns.rightTurns, quantity: 'count' },
      { key: 'boxRatio', label: 'gear of the box', value: turns.boxRatio ?? 1, quantity: 'ratio' },
    ],
    sources: [EXACT],
    result: { label: 'ratio', quantity: 'ratio' },
    note: 'More turns, and the error shrinks. Counting the teeth, once it is open, confirms it.',
    compute: (changed) => {
      const { ratio, errorRatio, pairs } = closedRatio({ ...turns, ...changed });
      return {
        value: ratio,
        steps: [
          { label: 'by as much either way', value: errorRatio, quantity: 'ratio' },
          { label: 'tooth pairs inside it', value: pairs.length, quantity: 'count' },
        ],
      };
    },
  });
