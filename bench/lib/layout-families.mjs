/** Whether a finding is about the layout: what is lost, out of place, or on something else. */
export const isOfLayout = ({ family }) => ['overflow', 'overlap', 'clipped'].includes(family);
