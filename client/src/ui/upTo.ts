/** A limit after its verb: up to a gust, or over the strongest that is calculated. */
export const upTo = (limit: string): string => (limit.startsWith("over ") ? limit : `up to ${limit}`);
