/** The reference of the kit, from the comments of its declarations, as Markdown. */
export function kitReference(): string;
