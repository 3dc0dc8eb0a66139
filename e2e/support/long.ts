/**
 * How a test that is slow by nature is told from the others: `npm test` leaves it to `npm run test:long`.
 * @param isLong false for the one of its kind that runs each time
 */
export const long = (isLong = true) => (isLong ? { tag: "@long" } : {});
