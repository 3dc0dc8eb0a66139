const RIGHT_TO_LEFT = /^(ar|ckb|dv|fa|he|ps|sd|ug|ur|yi)\b/i;

/** Whether a language is written from right to left. @param lang BCP 47 */
export const isRightToLeft = (lang: string) => RIGHT_TO_LEFT.test(lang);
