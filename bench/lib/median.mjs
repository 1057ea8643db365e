/** Of an even number of values, the upper one of the two in the middle. */
export const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
