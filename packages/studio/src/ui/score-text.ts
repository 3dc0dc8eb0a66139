/** A score, 0 to 1, as it is shown: one that is hardly any is not said to be none. */
export const scoreText = (score: number) => (score < 0.005 ? "under 0.01" : score.toFixed(2));
