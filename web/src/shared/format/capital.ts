/** With a capital letter, as at the head of a sentence. */
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
